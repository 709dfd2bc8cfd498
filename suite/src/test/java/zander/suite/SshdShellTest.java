package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIf;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.connect.Connection;
import zander.core.connect.command.KeptShell;
import zander.core.connect.command.ShellLanguage;
import zander.core.connect.command.ShellPlace;
import zander.core.connect.command.ShellSession;
import zander.core.files.RemotePath;
import zander.core.term.Terminal;
import zander.core.term.screen.Scrollback;

/** Shells of an account on the system's own server, shown by our terminal. */
@EnabledIf("zander.suite.SystemSshd#isPossible")
class SshdShellTest {
  private static final String ACCOUNT = "zndshell" + System.getProperty("test.fork", "");
  private static final long PATIENCE = 60_000_000_000L;

  @TempDir static Path folder;
  private static SystemSshd sshd;

  @BeforeAll
  static void start() throws Exception {
    sshd = new SystemSshd(folder, List.of(ACCOUNT), List.of("AcceptEnv LANG LC_*"));
  }

  @AfterAll
  static void stop() throws Exception {
    sshd.close();
  }

  /** A shell and the terminal that it writes to. */
  private static final class Shown implements AutoCloseable {
    private final ShellSession shell;
    private final Terminal terminal;

    Shown(Connection connection, RemotePath at) throws IOException {
      this(connection.openShell(at, 80, 24));
    }

    Shown(ShellSession opened) {
      shell = opened;
      terminal = new Terminal(80, 24, new Scrollback(100, 1 << 20), new int[259], this::type);
      Thread reading = new Thread(this::read);
      reading.setDaemon(true);
      reading.start();
    }

    private void read() {
      byte[] buffer = new byte[4096];
      try {
        for (int count; (count = shell.output().read(buffer)) >= 0; ) {
          terminal.feed(buffer, 0, count);
        }
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }

    private void type(byte[] bytes) {
      try {
        shell.type(bytes);
      } catch (IOException e) {
        throw new UncheckedIOException(e);
      }
    }

    void type(String text) {
      type(text.getBytes(StandardCharsets.UTF_8));
    }

    String text() {
      return terminal.look(
          screen -> {
            StringBuilder text = new StringBuilder();
            for (int y = 0; y < screen.rows(); y++) {
              text.append(screen.row(y).text().stripTrailing()).append('\n');
            }
            return text.toString();
          });
    }

    void awaitText(String text) {
      long end = System.nanoTime() + PATIENCE;
      while (!text().contains(text) && System.nanoTime() < end) {
        Thread.onSpinWait();
      }
      assertThat(text()).contains(text);
    }

    @Override
    public void close() {
      shell.close();
    }
  }

  @Test
  void theFolderOfAShellIsFoundByItsProcess() throws Exception {
    Path made = Files.createDirectories(folder.resolve(ACCOUNT).resolve("a b'c"));
    SystemSshd.run("chown", "-R", ACCOUNT + ":", folder.resolve(ACCOUNT).toString());
    RemotePath home = RemotePath.of(folder.resolve(ACCOUNT).toString());
    try (Connection connection = sshd.open(ACCOUNT);
        Shown other = new Shown(connection, home);
        Shown shown = new Shown(connection, home)) {
      shown.type("cd \"a b'c\"; sleep 1000 & echo th''ere\r");
      shown.awaitText("there");
      assertThat(ShellPlace.of(connection, shown.shell.mark()).text()).isEqualTo(made.toString());
      other.type("echo th''ere\r");
      other.awaitText("there");
      assertThat(ShellPlace.of(connection, other.shell.mark())).isEqualTo(home);
      assertThat(ShellPlace.of(connection, "0123456789abcdef")).isNull();
      shown.type("kill %1\r");
    }
  }

  @Test
  void aKeptShellGoesOnOverAnotherLine() throws Exception {
    RemotePath home = RemotePath.of(folder.resolve(ACCOUNT).toString());
    try (Connection connection = sshd.open(ACCOUNT)) {
      assertThat(KeptShell.isPossible(connection)).isTrue();
      try (Shown shown = new Shown(connection.openShell(home, 80, 24, "zander-1"))) {
        shown.type("level=142; cd /tmp; clear; echo se''t\r");
        shown.awaitText("set");
        assertThat(KeptShell.folder(connection, "zander-1")).isEqualTo(RemotePath.of("/tmp"));
      }
    }
    try (Connection connection = sshd.open(ACCOUNT);
        Shown shown = new Shown(connection.openShell(home, 80, 24, "zander-1"))) {
      shown.awaitText("set");
      shown.type("echo at $level; exit\r");
      shown.awaitText("[exited]");
      assertThat(KeptShell.folder(connection, "zander-1")).isNull();
    }
  }

  @Test
  void anotherCodingIsFoundAndAStartFileIsListenedTo() throws Exception {
    Path home = folder.resolve(ACCOUNT);
    Path plainFolder = Files.createDirectories(folder.resolve("plain"));
    try (SystemSshd plain = new SystemSshd(plainFolder, List.of(), List.of());
        Connection connection = plain.open(ACCOUNT)) {
      RemotePath at = RemotePath.of(home.toString());
      try (Shown shown = new Shown(connection, at)) {
        shown.type("echo th''ere\r");
        shown.awaitText("there");
        assertThat(ShellLanguage.otherCoding(connection, shown.shell.mark()))
            .isEqualTo("ANSI_X3.4-1968");
        Files.writeString(home.resolve(".profile"), "export LANG=C.UTF-8\n");
        assertThat(ShellLanguage.otherCoding(connection, shown.shell.mark())).isEmpty();
      } finally {
        Files.deleteIfExists(home.resolve(".profile"));
      }
    }
  }

  @Test
  void programsAreToldThatTextIsUtf8() throws Exception {
    try (Connection connection = sshd.open(ACCOUNT);
        Shown shown = new Shown(connection, RemotePath.of("/"))) {
      shown.type("echo co''ding $(locale charmap) $COLORTERM\r");
      shown.awaitText("coding UTF-8");
    }
  }

  /** Each starts, shows what is typed in UTF-8, and knows the size and the kind of the terminal. */
  @ParameterizedTest
  @ValueSource(strings = {"/bin/bash", "/bin/dash", "/usr/bin/fish", "/bin/tcsh", "/bin/zsh"})
  void loginShellsAreShown(String shell) throws Exception {
    SystemSshd.run("usermod", "-s", shell, ACCOUNT);
    // Without one, zsh asks what it is to have.
    Files.writeString(folder.resolve(ACCOUNT).resolve(".zshrc"), "");
    try (Connection connection = sshd.open(ACCOUNT);
        Shown shown = new Shown(connection, RemotePath.of("/"))) {
      shown.type("stty size; printf 'gauge-\\303\\251 '$TERM'\\n'\r");
      shown.awaitText("24 80");
      shown.awaitText("gauge-\u00e9 xterm-256color");
    } finally {
      SystemSshd.run("usermod", "-s", "/bin/bash", ACCOUNT);
    }
  }
}
