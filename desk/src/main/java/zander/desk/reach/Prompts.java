package zander.desk.reach;

import java.util.List;
import java.util.concurrent.CompletableFuture;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInPrompt.Challenge;
import zander.core.trust.WireKey;

/** The questions that may stand over everything else: a host key and secrets. */
public interface Prompts {
  /**
   * A secret to ask for.
   *
   * @param wrong whether the detail tells of wrong tries
   * @param mayKeep whether it may be kept for longer than this use
   * @param preset what was chosen for the last one
   */
  record Ask(String headline, String detail, boolean wrong, boolean mayKeep, KeepSecret preset) {}

  /**
   * A secret that was given; the asker wipes it.
   *
   * @param letters never {@code null}
   */
  record Given(char[] letters, KeepSecret keep) {}

  void hostKey(ServerAddress address, WireKey shown, CompletableFuture<Boolean> answer);

  /** Whether a command of this computer may be run to reach a server, now and from now on. */
  void command(ServerAddress address, String command, CompletableFuture<Boolean> answer);

  /**
   * @param answer completed with what was given, or {@code null}
   */
  void secret(Ask ask, CompletableFuture<Given> answer);

  /**
   * @param answer completed with an answer for each question, or {@code null}
   */
  void questions(Challenge challenge, String detail, CompletableFuture<List<char[]>> answer);
}
