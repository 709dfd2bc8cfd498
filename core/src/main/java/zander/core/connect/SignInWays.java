package zander.core.connect;

import java.nio.file.Path;

/**
 * How to prove to be the account's owner. The chosen key is offered first, by the agent where that
 * holds it, so that an agent full of keys does not use up the server's tries.
 *
 * @param keyFile the private key to offer, or {@code null}
 * @param certificate the certificate to offer with it; {@code null} for the one beside the key
 *     file, if there is one
 * @param agent whether the agent's other keys may be offered too
 * @param password whether a password, or answers to the server's questions, may be asked for
 */
public record SignInWays(Path keyFile, Path certificate, boolean agent, boolean password) {
  public static SignInWays byKey(Path keyFile) {
    return new SignInWays(keyFile, null, false, false);
  }

  public static SignInWays byPassword() {
    return new SignInWays(null, null, false, true);
  }

  public static SignInWays byAgent() {
    return new SignInWays(null, null, true, false);
  }

  /** The same, with a password as the second choice. */
  public SignInWays orPassword() {
    return new SignInWays(keyFile, certificate, agent, true);
  }
}
