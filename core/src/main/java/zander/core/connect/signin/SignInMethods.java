package zander.core.connect.signin;

import java.nio.file.Path;
import org.jspecify.annotations.Nullable;

/**
 * How to prove to be the account's owner. The chosen key is offered first, by the agent where that
 * holds it, so that an agent full of keys does not use up the server's tries.
 *
 * @param keyFile the private key to offer, or {@code null}
 * @param certificate the certificate to offer with it; {@code null} for the one beside the key
 *     file, if there is one
 * @param agent whether the agent's other keys may be offered too
 * @param password whether a password, or answers to the server's questions, may be asked for
 * @param oldAlgorithms whether algorithms that are not safe any more may be used with this server
 */
public record SignInMethods(
    @Nullable Path keyFile,
    @Nullable Path certificate,
    boolean agent,
    boolean password,
    boolean oldAlgorithms) {
  public SignInMethods(
      @Nullable Path keyFile, @Nullable Path certificate, boolean agent, boolean password) {
    this(keyFile, certificate, agent, password, false);
  }

  public static SignInMethods byKey(Path keyFile) {
    return new SignInMethods(keyFile, null, false, false);
  }

  public static SignInMethods byPassword() {
    return new SignInMethods(null, null, false, true);
  }

  public static SignInMethods byAgent() {
    return new SignInMethods(null, null, true, false);
  }

  /** The same, with a password as the second choice. */
  public SignInMethods orPassword() {
    return new SignInMethods(keyFile, certificate, agent, true, oldAlgorithms);
  }
}
