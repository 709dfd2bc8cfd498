/**
 * Reaching a server: names and ports, host keys and trust, keys and passwords, and the connection
 * that comes of it. The SSH library's types stay in here and in {@code files}.
 */
@NullMarked
package zander.core.connect;

import org.jspecify.annotations.NullMarked;
