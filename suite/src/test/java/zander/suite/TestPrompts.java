package zander.suite;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.report.SignInNote;
import zander.core.connect.report.SignInStep;
import zander.core.connect.signin.SignInPrompt;
import zander.core.trust.WireKey;
import zander.desk.words.Phrases;

/** Answers the questions of a sign-in as a test wants, and remembers them. */
public class TestPrompts implements SignInPrompt {
  public final List<String> asked = Collections.synchronizedList(new ArrayList<>());
  public final List<SignInNote> notes = Collections.synchronizedList(new ArrayList<>());
  public final List<SignInStep> steps = Collections.synchronizedList(new ArrayList<>());
  public boolean acceptHostKey = true;
  public boolean acceptCommand = true;
  public String passphrase;
  public String password;
  public List<String> answers;

  public static TestPrompts accepting() {
    return new TestPrompts();
  }

  public static TestPrompts withPassword(String password) {
    TestPrompts talk = new TestPrompts();
    talk.password = password;
    return talk;
  }

  @Override
  public boolean isHostKeyRight(ServerAddress address, WireKey shown) {
    asked.add("host key " + shown.fingerprint());
    return acceptHostKey;
  }

  @Override
  public boolean mayRun(ServerAddress address, String command) {
    asked.add("run " + command);
    return acceptCommand;
  }

  @Override
  public char[] passphrase(Path keyFile, int wrong) {
    asked.add("passphrase");
    return passphrase == null ? null : passphrase.toCharArray();
  }

  @Override
  public char[] password(ServerAddress address, int wrong) {
    asked.add("password");
    return password == null ? null : password.toCharArray();
  }

  @Override
  public List<char[]> answers(Challenge challenge, int wrong) {
    challenge.prompts().forEach(prompt -> asked.add("asked " + prompt.text()));
    return answers == null ? null : answers.stream().map(String::toCharArray).toList();
  }

  @Override
  public void noted(SignInNote note) {
    notes.add(note);
    if (note.kind() == SignInNote.Kind.BEGUN) {
      steps.add(note.step());
    }
  }

  /** What was offered, refused or taken, in order. */
  public List<String> proofs() {
    return notes.stream()
        .filter(note -> note.step() == SignInStep.SIGN_IN)
        .filter(note -> note.kind() != SignInNote.Kind.BEGUN)
        .map(note -> note.kind() + " " + Phrases.say(note.fact()))
        .toList();
  }
}
