package zander.core.connect.signin;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.util.buffer.Buffer;
import zander.core.connect.signin.SignInPrompt.Challenge;
import zander.core.connect.signin.SignInPrompt.Prompt;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.SignInPhrase;
import zander.core.work.SecretBytes;
import zander.core.work.VisibleText;

/**
 * The {@code keyboard-interactive} method of RFC 4256: the server asks, one thing or several, in as
 * many rounds as it wants. Answers go from bytes that are wiped.
 */
public final class KeyboardInteractiveAuth extends AuthMethod {
  public static final String NAME = "keyboard-interactive";

  private static final int INFO_REQUEST = 60;
  private static final int INFO_RESPONSE = 61;
  private static final int MOST_PROMPTS = 20;
  private static final int LONGEST_TEXT = 2000;

  private boolean asked = true;

  public KeyboardInteractiveAuth(SignInAttempt attempt) {
    super(NAME, attempt);
  }

  @Override
  protected boolean sendAuthDataRequest(ClientSession session, String service) throws IOException {
    // A server that refused without asking anything has no questions: not tried again.
    if (!attempt.mayTryLetters() || !asked) {
      return false;
    }
    asked = false;
    Buffer request = request(session, service, NAME);
    request.putString("");
    request.putString("");
    session.writePacket(request);
    return true;
  }

  @Override
  protected boolean processAuthDataRequest(ClientSession session, String service, Buffer asks)
      throws IOException {
    attempt.answered();
    if (asks.getUByte() != INFO_REQUEST) {
      throw new ExplainedException(SignInPhrase.NOT_EXPECTED.of());
    }
    String title = clean(asks.getString());
    String instruction = clean(asks.getString());
    asks.getString();
    int count = asks.getInt();
    if (count < 0 || count > MOST_PROMPTS) {
      throw new ExplainedException(SignInPhrase.TOO_MANY_QUESTIONS.of(count));
    }
    List<Prompt> prompts = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      prompts.add(new Prompt(clean(asks.getString()), asks.getBoolean()));
    }
    List<char[]> answers = List.of();
    if (count > 0) {
      asked = true;
      Challenge challenge = new Challenge(attempt.address(), title, instruction, prompts);
      answers =
          attempt.askingLetters(
              NAME,
              prompts.stream().map(Prompt::text).toList(),
              wrong -> attempt.talk().answers(challenge, wrong));
      if (answers == null || answers.size() != count) {
        attempt.giveUp();
        return false;
      }
    }
    send(session, answers);
    return true;
  }

  private static void send(ClientSession session, List<char[]> answers) throws IOException {
    Buffer response = session.createBuffer((byte) INFO_RESPONSE, 256);
    List<byte[]> encoded = answers.stream().map(SecretBytes::bytes).toList();
    try {
      response.putInt(encoded.size());
      encoded.forEach(response::putBytes);
      session.writePacket(response).verify();
    } finally {
      answers.forEach(SecretBytes::wipe);
      encoded.forEach(SecretBytes::wipe);
      Arrays.fill(response.array(), (byte) 0);
    }
  }

  /** A server's text must not move the cursor or paint the window. */
  static String clean(String text) {
    String cut = text.length() > LONGEST_TEXT ? text.substring(0, LONGEST_TEXT) : text;
    // A terminal's line ends and tabs are no tricks.
    return VisibleText.of(cut.replace("\r\n", "\n").replace('\t', ' ')).strip();
  }
}
