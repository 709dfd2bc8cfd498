/**
 * The remote file system: names as bytes, attributes, listing, reading, whole writes and changes.
 * The SFTP protocol and the SSH library stay behind {@link zander.core.files.RemoteFiles}.
 */
package zander.core.files;
