package zander.core.connect;

import java.nio.file.Path;

/**
 * What must be asked of the person while signing in. Called on background threads; each call may
 * wait as long as the person thinks. The caller wipes the secrets it is given.
 */
public interface SignInTalk {
  /** First contact: whether the key is the server's. */
  boolean isHostKeyRight(ServerAddress address, HostKey shown);

  /**
   * The passphrase of a key file, or {@code null} to give up.
   *
   * @param tries how many were wrong so far
   */
  char[] passphrase(Path keyFile, int tries);

  /**
   * The account's password, or {@code null} to give up.
   *
   * @param tries how many were wrong so far
   */
  char[] password(ServerAddress address, int tries);

  /** Told before each step, for showing where the sign-in stands. */
  default void reached(SignInStep step) {}
}
