package zander.standin.server;

import java.util.List;
import java.util.function.BiPredicate;
import org.apache.sshd.server.auth.keyboard.InteractiveChallenge;
import org.apache.sshd.server.auth.keyboard.KeyboardInteractiveAuthenticator;
import org.apache.sshd.server.session.ServerSession;

/** Asks for the password and a one-time code at the keyboard (RFC 4256). */
final class CodeAsked implements KeyboardInteractiveAuthenticator {
  private final String code;
  private final BiPredicate<String, String> passwords;
  private final Runnable seen;

  CodeAsked(String code, BiPredicate<String, String> passwords, Runnable seen) {
    this.code = code;
    this.passwords = passwords;
    this.seen = seen;
  }

  @Override
  public InteractiveChallenge generateChallenge(
      ServerSession session, String name, String language, String methods) {
    InteractiveChallenge challenge = new InteractiveChallenge();
    challenge.setInteractionName("Riverwatch");
    challenge.setInteractionInstruction("The code is on your key fob.");
    challenge.addPrompt("Password: ", false);
    challenge.addPrompt("One-time code: ", true);
    return challenge;
  }

  @Override
  public boolean authenticate(ServerSession session, String name, List<String> answers) {
    seen.run();
    return answers.size() == 2
        && passwords.test(name, answers.get(0))
        && answers.get(1).equals(code);
  }
}
