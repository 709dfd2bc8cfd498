package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Deque;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.change.RightsChange;
import zander.core.change.save.AtomicSave;
import zander.core.connect.Connection;
import zander.core.connect.channel.ActFailure;
import zander.core.connect.channel.ActFailure.Reason;
import zander.core.connect.channel.Elevation;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ShellSession;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.desk.words.Phrases;

/** Acting as another account by the system's own {@code sudo}, over the system's {@code sshd}. */
@Timeout(value = 240, unit = TimeUnit.SECONDS)
class SshdSudoTest {
  private static final String ACCOUNT = "zndsudo";
  private static final String OTHER = "zndother";
  private static final String PASSWORD = "heron-at-dusk'\\";

  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static SystemSudo sudo;
  private static Path closed;

  /** What is given when a password is asked for, and how many were wrong by then. */
  private final Deque<String> given = new ArrayDeque<>();

  private final List<Integer> asked = Collections.synchronizedList(new ArrayList<>());

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSudo.isPossible(), "needs openssh-server and sudo, and to be root");
    sshd = new SystemSshd(folder, List.of(ACCOUNT, OTHER), List.of());
    SystemSshd.setPassword(ACCOUNT, PASSWORD);
    sudo = new SystemSudo("suite");
    closed = Files.createDirectory(folder.resolve("closed"));
    Files.writeString(closed.resolve("site.conf"), "level 3\n");
    Files.setPosixFilePermissions(
        closed.resolve("site.conf"), PosixFilePermissions.fromString("rw-r-----"));
    SystemSshd.run("chown", "root:" + OTHER, closed.resolve("site.conf").toString());
    Files.setPosixFilePermissions(closed, PosixFilePermissions.fromString("rwx------"));
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sudo.close();
      sshd.close();
    }
  }

  @AfterEach
  void usualShell() throws Exception {
    SystemSshd.run("usermod", "-s", "/bin/sh", ACCOUNT);
  }

  private Elevation right(String account, String... passwords) {
    given.addAll(Arrays.asList(passwords));
    return new Elevation(
        account,
        wrong -> {
          asked.add(wrong);
          String next = given.poll();
          return next == null ? null : next.toCharArray();
        });
  }

  private ActFailure refusal(Connection connection, Elevation right) {
    return catchThrowableOfType(ActFailure.class, () -> connection.actAs(right, "/"));
  }

  private static RemotePath in(String name) {
    return RemotePath.of(closed.resolve(name).toString());
  }

  @ParameterizedTest
  @ValueSource(strings = {"", "use_pty", "!use_pty", "lecture=always", "passprompt=\"who? \""})
  void allIsDoneAsRootWithOneQuestion(String option) throws Exception {
    sudo.rule(
        option.isEmpty() ? "" : "Defaults:" + ACCOUNT + " " + option, ACCOUNT + " ALL=(ALL) ALL");
    try (Connection connection = sshd.open(ACCOUNT);
        Connection root = connection.actAs(right("root", PASSWORD), closed.toString())) {
      assertThat(root.whoAmI().uid()).isZero();
      assertThat(root.whoAmI().home()).isEqualTo(RemotePath.of("/root"));
      assertThat(root.landing().folder()).isEqualTo(RemotePath.of(closed.toString()));
      List<RemoteEntry> listed = root.files().list(in("x").parent(), portion -> {});
      assertThat(listed).extracting(RemoteEntry::name).contains("site.conf");

      AtomicSave saver = new AtomicSave(root.files(), root, Journal.NONE);
      AtomicSave.Opened opened = saver.open(in("site.conf"), 1 << 20);
      saver.save(opened.version(), "level 4\n".getBytes(UTF_8), List.of());
      assertThat(closed.resolve("site.conf")).hasContent("level 4");
      assertThat(SystemSshd.run("stat", "-c", "%U:%G %a", closed.resolve("site.conf").toString()))
          .isEqualTo("root:" + OTHER + " 640\n");

      assertThat(root.script("id -u; id -un").outText()).isEqualTo("0\nroot\n");
      try (Pipe pipe = root.pipe("cat; id -u")) {
        pipe.in().write("by a pipe\n".getBytes(UTF_8));
        pipe.in().close();
        assertThat(new String(pipe.out().readAllBytes(), UTF_8)).isEqualTo("by a pipe\n0\n");
        pipe.finish();
      }
      assertThat(root.moreFiles(2)).hasSize(2);
      assertThat(connection.script("id -un").outText()).isEqualTo(ACCOUNT + "\n");
    }
    assertThat(asked).containsExactly(0);
  }

  /** Where others can turn a path, root's requests are named below a handle: also by sudo. */
  @ParameterizedTest
  @ValueSource(strings = {"use_pty", "!use_pty"})
  void rootIsGuardedInAFolderOfOthers(String option) throws Exception {
    sudo.rule("Defaults:" + ACCOUNT + " " + option, ACCOUNT + " ALL=(ALL) ALL");
    try (Connection connection = sshd.open(ACCOUNT);
        Connection root = connection.actAs(right("root", PASSWORD), "/")) {
      RemotePath theirs = RemotePath.of(folder.resolve(OTHER).toString());
      assertThat(root.files().othersMayTurn(theirs.child("x"))).isTrue();
      assertThat(root.files().othersMayTurn(RemotePath.of("/etc/x"))).isFalse();
    }
  }

  @Test
  void aFileIsGivenToAnotherAccountAndPutBack() throws Exception {
    sudo.rule(ACCOUNT + " ALL=(root) ALL");
    Path page = Files.writeString(closed.resolve("alerts.html"), "calm");
    try (Connection connection = sshd.open(ACCOUNT);
        Connection root = connection.actAs(right("root", PASSWORD), "/")) {
      int uid = Integer.parseInt(SystemSshd.run("id", "-u", OTHER).strip());
      new RightsChange(root.files(), Journal.NONE)
          .apply(
              List.of(RemotePath.of(page.toString())),
              java.util.OptionalInt.of(uid),
              java.util.OptionalInt.empty(),
              (mode, isFolder) -> mode);
      assertThat(Files.getOwner(page).getName()).isEqualTo(OTHER);
    }
  }

  @Test
  void aWrongPasswordIsCountedAndNeverSentTwice() throws Exception {
    sudo.rule(ACCOUNT + " ALL=(ALL) ALL");
    try (Connection connection = sshd.open(ACCOUNT)) {
      try (Connection root = connection.actAs(right("root", "wren", PASSWORD), "/")) {
        assertThat(root.script("id -u").outText()).isEqualTo("0\n");
      }
      assertThat(asked).containsExactly(0, 1);
      asked.clear();
      ActFailure refused = refusal(connection, right("root", "wren", "egret", "tern", PASSWORD));
      assertThat(refused.reason()).isEqualTo(Reason.WRONG_PASSWORD);
      assertThat(asked).as("sudo gives three tries").containsExactly(0, 1, 2);
      given.clear();
      asked.clear();
      assertThat(refusal(connection, right("root")).reason()).isEqualTo(Reason.GIVEN_UP);
      assertThat(connection.script("id -un").outText()).isEqualTo(ACCOUNT + "\n");
    }
  }

  /** A password that nobody asked for would be the first line that the program reads. */
  @Test
  void aKeptPasswordIsNotSentWhereNoneIsAskedFor() throws Exception {
    sudo.rule(ACCOUNT + " ALL=(ALL) ALL");
    Elevation right = right("root", PASSWORD);
    try (Connection connection = sshd.open(ACCOUNT);
        Connection root = connection.actAs(right, "/")) {
      sudo.rule(ACCOUNT + " ALL=(ALL) NOPASSWD: ALL");
      ExecResult read = root.script("cat; exit 7");
      assertThat(read.outText()).isEmpty();
      assertThat(read.exit()).isEqualTo(7);
      try (Pipe pipe = root.pipe("cat")) {
        pipe.in().write("mine\n".getBytes(UTF_8));
        pipe.in().close();
        assertThat(new String(pipe.out().readAllBytes(), UTF_8)).isEqualTo("mine\n");
      }
      assertThat(root.moreFiles(1)).hasSize(1);
    }
    asked.clear();
    try (Connection connection = sshd.open(ACCOUNT);
        Connection root = connection.actAs(right("root"), "/")) {
      assertThat(root.whoAmI().uid()).isZero();
    }
    assertThat(asked).as("nobody is asked").isEmpty();
  }

  @Test
  void whatTheRulesDoNotAllowIsTold() throws Exception {
    sudo.rule("# nothing for " + ACCOUNT);
    try (Connection connection = sshd.open(ACCOUNT)) {
      ActFailure refused = refusal(connection, right("root", PASSWORD));
      assertThat(refused.reason()).isEqualTo(Reason.NOT_ALLOWED);
      assertThat(Phrases.say(refused.detail())).contains(ACCOUNT).doesNotContain("zander-");
      assertThat(refused.line()).isEqualTo(ACCOUNT + " ALL=(root) ALL");
      sudo.rule(ACCOUNT + " ALL=(root) NOPASSWD: /usr/bin/systemctl restart levels");
      ActFailure limited = refusal(connection, right("root", PASSWORD));
      assertThat(limited.reason()).isEqualTo(Reason.NOT_ALLOWED);
      assertThat(limited.allowed())
          .containsExactly("(root) NOPASSWD: /usr/bin/systemctl restart levels");
      sudo.rule(ACCOUNT + " ALL=(" + OTHER + ") ALL");
      assertThat(refusal(connection, right("root", PASSWORD)).reason())
          .isEqualTo(Reason.NOT_ALLOWED);
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"/bin/bash", "/bin/csh", "/bin/tcsh", "/usr/bin/fish", "/bin/zsh"})
  void anyLoginShellAndAnyAccount(String shell) throws Exception {
    Assumptions.assumeTrue(Files.isExecutable(Path.of(shell)), "there is no " + shell);
    SystemSshd.run("usermod", "-s", shell, ACCOUNT);
    sudo.rule(ACCOUNT + " ALL=(" + OTHER + ") ALL");
    try (Connection connection = sshd.open(ACCOUNT);
        Connection other = connection.actAs(right(OTHER, PASSWORD), "/")) {
      assertThat(other.whoAmI().account()).isEqualTo(OTHER);
      assertThat(other.script("printf '%s' " + ShellWords.quote("a'b\\c")).outText())
          .isEqualTo("a'b\\c");
      RemotePath made = other.whoAmI().home().child("made");
      other.files().makeFolder(made, new zander.core.rights.Mode(0750));
      assertThat(Files.getOwner(Path.of(made.text())).getName()).isEqualTo(OTHER);
      other.files().removeFolder(made);
    }
  }

  /** A shell as root asks no second time, and shows nothing of what was asked. */
  @ParameterizedTest
  @ValueSource(strings = {"use_pty", "requiretty", "lecture=always"})
  void aShellIsAnothersWithoutAnotherQuestion(String option) throws Exception {
    sudo.rule(ACCOUNT + " ALL=(ALL) ALL");
    try (Connection connection = sshd.open(ACCOUNT);
        Connection root = connection.actAs(right("root", PASSWORD), "/")) {
      sudo.rule("Defaults:" + ACCOUNT + " " + option, ACCOUNT + " ALL=(ALL) ALL");
      try (ShellSession shell = root.openShell(RemotePath.of(closed.toString()), 90, 25)) {
        shell.type("echo by-$(id -u) $(pwd) $(stty size) en''d\n".getBytes(UTF_8));
        StringBuilder seen = new StringBuilder();
        PathContract.readUntil(shell, seen, "end");
        assertThat(seen).contains("by-0 " + closed + " 25 90").doesNotContain("zander-");
        assertThat(seen.toString()).doesNotContain("heron").doesNotContain("password");
      }
      sudo.rule("# nothing for " + ACCOUNT);
      assertThat(
              catchThrowableOfType(
                      ActFailure.class, () -> root.openShell(RemotePath.of("/"), 80, 24))
                  .reason())
          .isEqualTo(Reason.NOT_ALLOWED);
    }
    assertThat(asked).containsExactly(0);
  }

  /** Where the session's places are taken, another session is opened. */
  @Test
  void twoPlacesASessionAreEnough(@TempDir Path narrow) throws Exception {
    sudo.rule(ACCOUNT + " ALL=(ALL) ALL");
    try (SystemSshd server = new SystemSshd(narrow, List.of(), List.of("MaxSessions 2"));
        Connection connection = server.open(ACCOUNT);
        ShellSession shell = connection.openShell(RemotePath.of("/"), 80, 24);
        Connection root = connection.actAs(right("root", PASSWORD), "/")) {
      assertThat(root.files().look(in("site.conf")).uid()).isZero();
      assertThat(root.script("id -u").outText()).isEqualTo("0\n");
      try (ShellSession another = root.openShell(RemotePath.of("/"), 80, 24)) {
        another.type("echo by-$(id -u) en''d\n".getBytes(UTF_8));
        StringBuilder seen = new StringBuilder();
        PathContract.readUntil(another, seen, "end");
        assertThat(seen).contains("by-0");
      }
    }
    assertThat(asked).containsExactly(0);
  }

  @Test
  void closingEndsTheRightAndItsProgramsAndNothingElse() throws Exception {
    sudo.rule(ACCOUNT + " ALL=(ALL) ALL");
    try (Connection connection = sshd.open(ACCOUNT)) {
      Connection root = connection.actAs(right("root", PASSWORD), "/");
      root.close();
      assertThat(catchThrowableOfType(IOException.class, () -> root.script("id"))).isNotNull();
      assertThat(catchThrowableOfType(IOException.class, () -> root.files().realPath(".")))
          .isNotNull();
      assertThat(connection.script("id -un").outText()).isEqualTo(ACCOUNT + "\n");
    }
  }

  @Test
  void thePasswordIsNeverInACommandLineOrALog() throws Exception {
    sudo.rule(ACCOUNT + " ALL=(ALL) ALL");
    AtomicBoolean over = new AtomicBoolean();
    List<String> seen = Collections.synchronizedList(new ArrayList<>());
    Thread watcher =
        new Thread(
            () -> {
              while (!over.get()) {
                look(seen);
              }
            });
    watcher.start();
    try (Connection connection = sshd.open(ACCOUNT);
        Connection root = connection.actAs(right("root", PASSWORD), "/")) {
      for (int i = 0; i < 10; i++) {
        root.script("id");
      }
      root.pipe("id").close();
    } finally {
      over.set(true);
      watcher.join();
    }
    assertThat(seen).isEmpty();
    assertThat(folder.resolve("sshd.log")).content().doesNotContain("heron-at-dusk");
  }

  private static void look(List<String> seen) {
    try (Stream<Path> all = Files.list(Path.of("/proc"))) {
      all.filter(path -> path.getFileName().toString().matches("[0-9]+"))
          .flatMap(path -> Stream.of(path.resolve("cmdline"), path.resolve("environ")))
          .forEach(
              path -> {
                try {
                  String text = new String(Files.readAllBytes(path), UTF_8);
                  if (text.contains("heron-at-dusk")) {
                    seen.add(text);
                  }
                } catch (IOException e) {
                  // It has ended.
                }
              });
    } catch (IOException e) {
      throw new java.io.UncheckedIOException(e);
    }
  }
}
