package zander.core.connect.signin;

import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.report.SignInNote;
import zander.core.trust.WireKey;

/**
 * What must be asked of the person while signing in. Called on background threads; each call may
 * wait as long as the person thinks. The caller wipes the secrets it is given.
 */
public interface SignInPrompt {
  /** First contact: whether the key is the server's. */
  boolean isHostKeyRight(ServerAddress address, WireKey shown);

  /**
   * Whether a command of this computer may be run to reach a server.
   *
   * @param command as {@code sh} gets it
   */
  default boolean mayRun(ServerAddress address, String command) {
    return false;
  }

  /**
   * The passphrase of a key file, or {@code null} to give up.
   *
   * @param wrong how many were wrong so far
   */
  char @Nullable [] passphrase(Path keyFile, int wrong);

  /**
   * The account's password, or {@code null} to give up.
   *
   * @param wrong how many were wrong so far
   */
  char @Nullable [] password(ServerAddress address, int wrong);

  /**
   * Answers to the questions of a server, one for each, or {@code null} to give up.
   *
   * @param wrong how many rounds of answers were wrong so far
   */
  default @Nullable List<char[]> answers(Challenge challenge, int wrong) {
    return null;
  }

  /** Told of each thing that happens, for showing where the sign-in stands. */
  default void noted(SignInNote note) {}

  /**
   * What a server asks by the keyboard-interactive method (RFC 4256): a password, a code, or
   * several of these. All of it is the server's text, cleaned of control characters.
   */
  record Challenge(ServerAddress address, String title, String instruction, List<Prompt> prompts) {}

  /**
   * @param shown whether the answer may be seen while it is typed
   */
  record Prompt(String text, boolean shown) {}
}
