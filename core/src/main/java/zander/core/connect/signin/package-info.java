/** Signing in at one server: its host key, and the methods of RFC 4252. */
package zander.core.connect.signin;
