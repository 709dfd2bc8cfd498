/** Channels of a session (RFC 4254), and the sessions that have room for them. */
package zander.core.connect.channel;
