package zander.suite.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.core.phrase.JournalPhrase;
import zander.desk.file.FileModel;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Question;
import zander.suite.SystemSshd;
import zander.suite.SystemSudo;

/**
 * Changes of the rights that one signs in and acts by, in the window: kept when a new sign-in and
 * sudo still work, and taken back by the server when they do not.
 */
@Timeout(240)
class KeptOnlyIfIGetInTest {
  private static final String ACCOUNT = "zndkept";
  private static final String PASSWORD = "heron-at-dusk";
  private final SystemSudo sudo = new SystemSudo("kept");

  @TempDir Path folder;
  private SystemSshd server;
  private OffscreenWindow window;

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSudo.isPossible(), "needs openssh-server and sudo, and to be root");
    server = new SystemSshd(folder, List.of(ACCOUNT), List.of());
    SystemSshd.setPassword(ACCOUNT, PASSWORD);
    sudo.rule(rule());
    window = new OffscreenWindow(folder.resolve("here"), server);
  }

  @AfterEach
  void stop() throws Exception {
    sudo.close();
    if (window != null) {
      window.close();
      server.close();
    }
  }

  private static String rule() {
    return ACCOUNT + " ALL=(ALL) ALL";
  }

  private FileModel openAsRoot(Path file) throws Exception {
    DeskModel desk =
        window.open("site", ACCOUNT, server.port(), folder.resolve(ACCOUNT), window.home());
    return window.openAsRoot(desk, RemotePath.of(file.toString()), PASSWORD);
  }

  private void save(FileModel file, String text) throws Exception {
    window.run(() -> file.edited(text));
    window.run(file::save);
  }

  private void untilSaid(FileModel file, String end) throws Exception {
    window.until(end, () -> file.stateProperty().get().endsWith(end));
  }

  private void untilNothingIsLeft() throws Exception {
    Path held = folder.resolve("root-home/.zander-held");
    for (Path home : List.of(Path.of("/root/.zander-held"), held)) {
      window.until("nothing is left", () -> isEmpty(home));
    }
  }

  private static boolean isEmpty(Path held) {
    try (Stream<Path> all = Files.exists(held) ? Files.list(held) : Stream.empty()) {
      return all.noneMatch(place -> Files.exists(place.resolve("return")));
    } catch (java.io.IOException e) {
      return false;
    }
  }

  @Test
  void rightsThatLockOutAreTakenBackAndOthersAreKept() throws Exception {
    Path rules = Path.of("/etc/sudoers.d/zander-kept");
    String before = Files.readString(rules);
    FileModel file = openAsRoot(rules);
    // It is offered with all that goes with it.
    String kept = "# otters too\n" + before;
    save(file, kept);
    assertThat(window.asked(file, "With each save").said().detail())
        .contains("visudo -cf")
        .contains("within 2 min");
    window.choose(file, "With each save");
    window.giveThePassword(PASSWORD);
    untilSaid(file, "kept: a new sign-in works");
    assertThat(rules).hasContent(kept);
    assertThat(Files.getPosixFilePermissions(rules))
        .isEqualTo(PosixFilePermissions.fromString("r--r-----"));
    // By visudo it is right, and takes sudo from the one who wrote it.
    String locked = "# nobody\n";
    save(file, locked);
    window.giveThePassword(PASSWORD);
    Question refused = window.asked(file, "Try again");
    assertThat(rules).hasContent(locked);
    assertThat(refused.said().headline()).isEqualTo("A new sign-in did not work");
    assertThat(window.on(() -> refused.live().getValue()))
        .startsWith("The server puts the version");
    window.choose(file, "Put it back now");
    untilSaid(file, "your text is not saved");
    window.until(
        "the journal has it",
        () ->
            window.model.currentProperty().get().journal().entries().stream()
                .anyMatch(
                    entry ->
                        entry.note().equals(JournalPhrase.PUT_BACK_BY_THE_SERVER.of().toString())));
    assertThat(rules).hasContent(kept);
    assertThat(Files.getPosixFilePermissions(rules))
        .isEqualTo(PosixFilePermissions.fromString("r--r-----"));
    untilNothingIsLeft();
  }

  /** Nobody answers: the server is alone with it. */
  @Test
  void whenTheTimeIsOverTheTextStaysAndTheServerHasTheVersionBefore() throws Exception {
    Path rules = Path.of("/etc/sudoers.d/zander-kept");
    String before = Files.readString(rules);
    FileModel file = openAsRoot(rules);
    window.run(file::askForRules);
    Question question = window.asked(file, "Keep");
    window.run(
        () -> {
          question.inputs().get(0).text().set("");
          question.inputs().get(3).text().set("10");
        });
    window.choose(file, "Keep");
    save(file, "# nobody\n");
    window.giveThePassword(PASSWORD);
    window.asked(file, "Try again");
    untilSaid(file, "your text is not saved");
    assertThat(rules).hasContent(before);
    window.until(
        "the text is here",
        () -> file.isUnsaved() || "# nobody\n".equals(file.draftedProperty().get()));
    assertThat(window.on(() -> file.questionProperty().get()).said().headline())
        .isEqualTo("The server has taken the change back");
    untilNothingIsLeft();
  }
}
