package zander.suite.window;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.Button;
import javafx.scene.control.TextArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.book.ServerEntry;
import zander.core.connect.Connection;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.connect.report.SignInNote;
import zander.core.connect.signin.Hop;
import zander.core.connect.signin.SignInMethods;
import zander.core.phrase.Phrase;
import zander.suite.SystemSshd;
import zander.suite.TestPrompts;

/** A server that an OpenSSH configuration reaches by a command, and nothing else does. */
@Timeout(value = 120, unit = TimeUnit.SECONDS)
class ProxyCommandTest {
  private static final String ACCOUNT = "zndproxy";

  @TempDir Path folder;
  private SystemSshd sshd;

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSshd.isPossible() && Files.isExecutable(Path.of("/usr/bin/busybox")),
        "needs openssh-server and busybox, and to be root");
    sshd = new SystemSshd(folder, List.of(ACCOUNT), List.of());
  }

  @AfterEach
  void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  private String command() {
    return "busybox nc 127.0.0.1 " + sshd.port();
  }

  /** Port 1 of a host that is nowhere: the line is the command's alone. */
  private Hop by(String command) {
    return new Hop(
        new zander.core.connect.address.ServerAddress(ACCOUNT, "store.invalid", 1),
        SignInMethods.byKey(sshd.keyFile()),
        command);
  }

  private long running() {
    return ProcessHandle.current()
        .descendants()
        .filter(one -> one.info().commandLine().orElse("").contains("nc 127.0.0.1"))
        .count();
  }

  @Test
  void itsInputAndOutputAreTheLine() throws Exception {
    TestPrompts talk = TestPrompts.accepting();
    try (Connection in = sshd.connector.open(List.of(by(command())), null, talk)) {
      byte[] much = new byte[3 << 20];
      new Random(1).nextBytes(much);
      assertThat(in.run("cat", much).out()).isEqualTo(much);
      assertThat(running()).isOne();
    }
    assertThat(talk.asked).contains("run " + command());
    long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(20);
    while (running() > 0 && System.nanoTime() < end) {
      Thread.onSpinWait();
    }
    assertThat(running()).as("it ends with the line").isZero();
  }

  @Test
  void whyItEndedIsToldInItsWords() {
    TestPrompts talk = TestPrompts.accepting();
    ConnectFailure failure =
        catchThrowableOfType(
            ConnectFailure.class,
            () ->
                sshd.connector.open(
                    List.of(by("sh -c 'echo the river is high >&2; exit 3'")), null, talk));
    assertThat(failure.address().host()).isEqualTo("store.invalid");
    long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(20);
    while (!said(talk, "the river is high") && System.nanoTime() < end) {
      Thread.onSpinWait();
    }
    assertThat(said(talk, "the river is high")).isTrue();
  }

  private static boolean said(TestPrompts talk, String words) {
    return List.copyOf(talk.notes).stream()
        .map(SignInNote::fact)
        .anyMatch(Phrase.quoted(words)::equals);
  }

  @Test
  void whatMayNotRunDoesNotRunAndNothingElseIsTried() {
    TestPrompts talk = TestPrompts.accepting();
    talk.acceptCommand = false;
    Path trace = folder.resolve("trace");
    ConnectFailure failure =
        catchThrowableOfType(
            ConnectFailure.class,
            () -> sshd.connector.open(List.of(by("touch " + trace)), null, talk));
    assertThat(failure.reason()).isEqualTo(Reason.GIVEN_UP);
    assertThat(trace).doesNotExist();
  }

  /** From the configuration to an open desk; asked once, also by the next run of the program. */
  @Test
  void aHostOfTheConfigurationIsReachedAfterOneQuestion() throws Exception {
    Path here = folder.resolve("here");
    Path ssh = Files.createDirectories(here.resolve("home/.ssh"));
    Files.write(
        ssh.resolve("config"),
        List.of(
            "Host store",
            "HostName store.invalid",
            "User " + ACCOUNT,
            "IdentityFile " + sshd.keyFile(),
            "IdentitiesOnly yes",
            "HostKeyAlias known",
            "ProxyCommand busybox nc 127.0.0.1 %p # %h",
            "Port " + sshd.port()));
    for (boolean first : new boolean[] {true, false}) {
      try (OffscreenWindow window = new OffscreenWindow(here, sshd)) {
        window.run(() -> window.model.book().read());
        window.until("the book is read", () -> window.model.book().find("store") != null);
        ServerEntry entry = window.on(() -> window.model.book().find("store"));
        assertThat(entry.note()).endsWith("HostKeyAlias");
        window.run(() -> window.model.open(entry));
        boolean[] asked = {false};
        window.until(
            "the desk is open",
            () -> {
              if (OffscreenWindow.seen("#proxy-command") instanceof TextArea text) {
                asked[0] |=
                    text.getText().endsWith("127.0.0.1 " + sshd.port() + " # store.invalid");
              }
              if (OffscreenWindow.seen("#prompt-yes") instanceof Button yes) {
                yes.fire();
              }
              return window.model.currentProperty().get() != null;
            });
        assertThat(asked[0]).isEqualTo(first);
        assertThat(window.on(() -> window.model.currentProperty().get().whoAmI().account()))
            .isEqualTo(ACCOUNT);
      }
    }
  }
}
