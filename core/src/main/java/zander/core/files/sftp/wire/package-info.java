/**
 * Requests and answers of SFTP over one channel, and the names in them that nobody else can turn.
 */
@NullMarked
package zander.core.files.sftp.wire;

import org.jspecify.annotations.NullMarked;
