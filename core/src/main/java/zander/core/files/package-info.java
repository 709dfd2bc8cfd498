/**
 * The remote file system: names as bytes, attributes, listing, reading, whole writes and changes.
 * The SFTP protocol and the SSH library stay behind {@link zander.core.files.RemoteFiles}.
 */
@NullMarked
package zander.core.files;

import org.jspecify.annotations.NullMarked;
