/** Letting a key in: the account's {@code authorized_keys} on a server. */
package zander.core.authorize;
