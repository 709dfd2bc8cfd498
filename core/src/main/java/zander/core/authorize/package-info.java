/** Letting a key in: the account's {@code authorized_keys} on a server. */
@NullMarked
package zander.core.authorize;

import org.jspecify.annotations.NullMarked;
