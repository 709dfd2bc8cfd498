package zander.core.connect.signin;

import org.jspecify.annotations.Nullable;
import zander.core.connect.address.ServerAddress;

/**
 * One server on the way: a jump host, or the goal at the end. Each has its own account, key and
 * trust.
 *
 * @param command of this computer whose input and output are the line to it; {@code null} for a
 *     socket
 */
public record Hop(ServerAddress address, SignInMethods ways, @Nullable String command) {
  public Hop(ServerAddress address, SignInMethods ways) {
    this(address, ways, null);
  }
}
