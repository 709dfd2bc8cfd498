package zander.core.connect.signin;

import zander.core.connect.address.ServerAddress;

/**
 * One server on the way: a jump host, or the goal at the end. Each has its own account, key and
 * trust.
 */
public record Hop(ServerAddress address, SignInMethods ways) {}
