/**
 * Requests and answers of SFTP over one channel, and the names in them that nobody else can turn.
 */
package zander.core.files.sftp.wire;
