package zander.core.connect.channel;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zander.core.connect.channel.ActFailure.Reason;

/** A password and an answer go where they were asked for, whatever else a server says. */
@Timeout(60)
class StartTalkTest {
  private final List<String> questions = new ArrayList<>();
  private final List<String> given = new ArrayList<>();
  private final ByteArrayOutputStream rest = new ByteArrayOutputStream();
  private StartTalk talk;
  private OutputStream errors;

  private void begin(WayUp way) {
    Elevation.PasswordPrompt person =
        new Elevation.PasswordPrompt() {
          @Override
          public char[] password(int wrong) {
            return "heron-at-dusk".toCharArray();
          }

          @Override
          public char[] answer(String question) {
            questions.add(question);
            return "755224".toCharArray();
          }
        };
    talk = new Elevation("web", way, person).talk();
    errors = talk.errors(rest);
  }

  private void say(String text) throws IOException {
    errors.write(text.getBytes(UTF_8));
  }

  /** Answers, and has the server say something after each answer. */
  private void await(String... afterEach) throws IOException {
    talk.await(
        line -> {
          given.add(new String(line, UTF_8).strip());
          say(afterEach[given.size() - 1]);
        });
  }

  private String runs() {
    return talk.startMark() + "\n";
  }

  @Test
  void whatAStartFilePrintsIsNoQuestion() throws IOException {
    begin(WayUp.SU);
    say("Password: " + talk.upMark() + "\nPassword: ");
    await("\n" + runs() + "its own");
    assertThat(given).containsExactly("heron-at-dusk");
    assertThat(rest.toString(UTF_8)).isEqualTo("its own");
    assertThat(questions).isEmpty();
  }

  @Test
  void aSecondQuestionForThePasswordIsNotAnswered() throws IOException {
    begin(WayUp.SU);
    say(talk.upMark() + "\nPassword: ");
    ActFailure failure = catchThrowableOfType(ActFailure.class, () -> await("\nPassword: "));
    assertThat(failure.reason()).isEqualTo(Reason.FAILED);
    assertThat(given).containsExactly("heron-at-dusk");
  }

  @Test
  void sudosMarkAloneIsForThePassword() throws IOException {
    begin(WayUp.SUDO);
    say(talk.upMark() + "\nA lecture.\nPassword: ");
    await(talk.promptMark(), runs());
    assertThat(questions).singleElement().asString().startsWith("Password:");
    assertThat(given).containsExactly("755224", "heron-at-dusk");
  }

  /** A refusal repeats the command, and the marks within it. */
  @Test
  void marksInARefusalAreNone() throws IOException {
    begin(WayUp.SUDO);
    say(talk.upMark() + "\nSorry, web may not run 'echo " + talk.startMark() + " >&2'.\n");
    talk.end();
    ActFailure failure = catchThrowableOfType(ActFailure.class, this::await);
    assertThat(failure.reason()).isEqualTo(Reason.NOT_ALLOWED);
    assertThat(given).isEmpty();
  }

  @Test
  void marksMayComeInParts() throws IOException {
    begin(WayUp.SUDO);
    int length = (talk.upMark() + "\n" + runs()).length();
    for (int cut = 1; cut < length; cut++) {
      begin(WayUp.SUDO);
      String all = talk.upMark() + "\n" + runs();
      int at = Math.min(cut, all.length());
      say(all.substring(0, at));
      assertThat(talk.isStarted()).as("cut at %d", at).isEqualTo(at == all.length());
      say(all.substring(at));
      await();
    }
    assertThat(questions).isEmpty();
    assertThat(given).isEmpty();
  }
}
