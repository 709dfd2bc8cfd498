/**
 * The channel of the file service: messages out and in, and what is printed before the service
 * speaks. Knows nothing of what the messages say.
 */
@NullMarked
package zander.core.files.sftp.channel;

import org.jspecify.annotations.NullMarked;
