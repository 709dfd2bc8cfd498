package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.CheckRefused;
import zander.core.change.save.SaveFailure;
import zander.core.change.save.StagedCheck;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.work.Cancellation;

/** Checks of new content by the system's own tools, over the system's own sshd. */
@Timeout(180)
class CheckedSaveTest {
  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static int count;
  private Path there;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of(), List.of());
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  @BeforeEach
  void fresh() throws Exception {
    there = Files.createDirectory(folder.resolve("it's " + ++count));
  }

  private static StagedCheck check(String command) {
    return new StagedCheck(command, new Cancellation());
  }

  private AtomicSave.Saved save(Path file, String content, StagedCheck check) throws Exception {
    try (Connection connection = sshd.open("root")) {
      AtomicSave saver = new AtomicSave(connection.files(), connection, Journal.NONE);
      AtomicSave.Opened opened = saver.open(RemotePath.of(file.toString()), 1 << 20);
      return saver.trying(check).save(opened.version(), content.getBytes(UTF_8), List.of());
    }
  }

  /** Nothing is changed, and nothing is left. */
  private CheckRefused refused(Path file, String content, String command) throws Exception {
    String before = Files.readString(file);
    Object key = Files.readAttributes(file, "unix:ino,lastModifiedTime");
    List<Path> names = names();
    SaveFailure failure =
        catchThrowableOfType(SaveFailure.class, () -> save(file, content, check(command)));
    assertThat(failure.reason()).isEqualTo(SaveFailure.Reason.CHECK_REFUSED);
    assertThat(failure.state()).isEqualTo(SaveFailure.ServerState.OLD);
    assertThat(file).hasContent(before);
    assertThat(Files.readAttributes(file, "unix:ino,lastModifiedTime")).isEqualTo(key);
    assertThat(names()).isEqualTo(names);
    return (CheckRefused) failure.getCause();
  }

  private List<Path> names() throws Exception {
    try (Stream<Path> names = Files.list(there)) {
      return names.sorted().toList();
    }
  }

  @Test
  void sudoersAreTriedByVisudo() throws Exception {
    Path file = Files.writeString(there.resolve("rules"), "warden ALL=(ALL) ALL\n");
    String wrong = "warden ALL=(ALL) ALL\n\nweb ALL=(ALL NOPASSWD: ALL\n";
    CheckRefused refused = refused(file, wrong, "visudo -cf {file}");
    assertThat(refused.said()).contains(file.toString()).doesNotContain(".zander-");
    assertThat(refused.line()).hasValue(3);
    save(file, "warden ALL=(ALL) NOPASSWD: ALL\n", check("visudo -cf {file}"));
    assertThat(file).hasContent("warden ALL=(ALL) NOPASSWD: ALL\n");
  }

  @Test
  void aConfigurationOfSshdAndAScriptAreTriedByTheirPrograms() throws Exception {
    Path config = Files.writeString(there.resolve("sshd_config"), "Port 2222\n");
    String wrong = "Port 2222\nPermitRootLogin maybe\n";
    assertThat(refused(config, wrong, "/usr/sbin/sshd -t -f {file}").line()).hasValue(2);
    Path script = Files.writeString(there.resolve("levels.sh"), "echo level\n");
    assertThat(refused(script, "echo 'level\n", "sh -n {file}").said()).isNotEmpty();
  }

  /** The same where the file must stay the one it is. */
  @Test
  void aFileOfTwoNamesIsNotTouchedBeforeItIsTried() throws Exception {
    Path file = Files.writeString(there.resolve("levels.sh"), "echo level\n");
    Files.createLink(there.resolve("other name"), file);
    refused(file, "if true\n", "sh -n {file}");
    assertThat(save(file, "echo river\n", check("sh -n {file}")).inPlace()).isTrue();
    assertThat(there.resolve("other name")).hasContent("echo river\n");
  }

  @Test
  void aProgramThatIsNotThereIsNamedAndOneThatHangsIsStopped() throws Exception {
    Path file = Files.writeString(there.resolve("levels.json"), "{}\n");
    assertThat(refused(file, "[]\n", "no-such-program {file}").isMissing()).isTrue();
    Cancellation stop = new Cancellation();
    Path began = there.resolve("began");
    Thread stopping =
        new Thread(
            () -> {
              while (!Files.exists(began)) {
                Thread.onSpinWait();
              }
              stop.stop();
            });
    stopping.start();
    StagedCheck hangs = new StagedCheck("touch '" + folder + "/began'; cat /dev/zero", stop);
    Files.createSymbolicLink(began, folder.resolve("began"));
    assertThatThrownBy(() -> save(file, "[]\n", hangs))
        .isInstanceOf(SaveFailure.class)
        .hasRootCauseInstanceOf(CancellationException.class);
    stopping.join();
    assertThat(file).hasContent("{}\n");
    Files.delete(began);
    assertThat(names()).containsExactly(file);
  }
}
