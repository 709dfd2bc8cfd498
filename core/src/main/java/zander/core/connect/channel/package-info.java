/** Channels of a session (RFC 4254), and the sessions that have room for them. */
@NullMarked
package zander.core.connect.channel;

import org.jspecify.annotations.NullMarked;
