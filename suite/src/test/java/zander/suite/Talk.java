package zander.suite;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import zander.core.connect.HostKey;
import zander.core.connect.ServerAddress;
import zander.core.connect.SignInStep;
import zander.core.connect.SignInTalk;

/** Answers the questions of a sign-in as a test wants, and remembers them. */
final class Talk implements SignInTalk {
  final List<String> asked = Collections.synchronizedList(new ArrayList<>());
  final List<SignInStep> steps = Collections.synchronizedList(new ArrayList<>());
  boolean acceptHostKey = true;
  String passphrase;
  String password;

  static Talk accepting() {
    return new Talk();
  }

  static Talk withPassword(String password) {
    Talk talk = new Talk();
    talk.password = password;
    return talk;
  }

  @Override
  public boolean isHostKeyRight(ServerAddress address, HostKey shown) {
    asked.add("host key " + shown.fingerprint());
    return acceptHostKey;
  }

  @Override
  public char[] passphrase(Path keyFile, int tries) {
    asked.add("passphrase");
    return passphrase == null ? null : passphrase.toCharArray();
  }

  @Override
  public char[] password(ServerAddress address, int tries) {
    asked.add("password");
    return password == null ? null : password.toCharArray();
  }

  @Override
  public void reached(SignInStep step) {
    steps.add(step);
  }
}
