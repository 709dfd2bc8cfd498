package zander.core.connect;

import java.nio.file.Path;

/**
 * How to prove to be the account's owner.
 *
 * @param keyFile the private key to offer first, or {@code null}
 * @param password whether a password may be asked for when the key is not enough
 */
public record SignInWays(Path keyFile, boolean password) {
  public static SignInWays byKey(Path keyFile) {
    return new SignInWays(keyFile, false);
  }

  public static SignInWays byPassword() {
    return new SignInWays(null, true);
  }
}
