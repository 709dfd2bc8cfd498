/** Signing in at one server: its host key, and the methods of RFC 4252. */
@NullMarked
package zander.core.connect.signin;

import org.jspecify.annotations.NullMarked;
