package zander.suite.servers;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.change.RemoteChanges;
import zander.core.connect.Connection;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.command.ShellSession;
import zander.core.connect.report.SignInNote;
import zander.core.connect.signin.SignInMethods;
import zander.core.files.RemotePath;
import zander.core.find.NameSearch;
import zander.core.journal.Journal;
import zander.core.listing.Narrowing;
import zander.core.rights.Mode;
import zander.core.work.BlockingCalls;
import zander.core.work.Cancellation;
import zander.suite.SystemSshd;
import zander.suite.TestPrompts;

/** Accounts as people have them: with start files that print or sleep, and any login shell. */
@Timeout(value = 120, unit = TimeUnit.SECONDS)
class OddAccountsTest {
  private static final String ACCOUNT = "zndodd";

  @TempDir static Path folder;
  private static SystemSshd sshd;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    Path banner = folder.resolve("banner");
    Files.writeString(banner, "Riverwatch: for members alone.\n\033[31mAll is logged.\n");
    sshd =
        new SystemSshd(
            folder,
            List.of(ACCOUNT),
            List.of("Subsystem sftp /usr/lib/openssh/sftp-server", "Banner " + banner));
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  /** Gives the account a shell and an empty home. */
  private static Path home(String shell) throws Exception {
    SystemSshd.run("usermod", "-s", shell, ACCOUNT);
    Path home = folder.resolve(ACCOUNT);
    SystemSshd.run("find", home.toString(), "-mindepth", "1", "-delete");
    return home;
  }

  private static void write(Path file, String content) throws Exception {
    Files.writeString(file, content);
    SystemSshd.run("chown", ACCOUNT + ":", file.toString());
  }

  @Test
  void theBannerShowsItsEscapesAsMarks() throws Exception {
    home("/bin/sh");
    TestPrompts talk = TestPrompts.accepting();
    try (Connection connection =
        sshd.connector.open(sshd.address(ACCOUNT), SignInMethods.byKey(sshd.keyFile()), talk)) {
      assertThat(connection.banner())
          .isEqualTo("Riverwatch: for members alone.\n\\x1b[31mAll is logged.");
    }
    assertThat(talk.notes)
        .filteredOn(note -> note.kind() == SignInNote.Kind.BANNER)
        .singleElement()
        .satisfies(note -> assertThat(note.fact().toString()).startsWith("Riverwatch"));
  }

  /** What asks the server on the thread that reads its answers would wait for itself. */
  @Test
  void aCallbackOfTheConnectionMayNotWait() throws Exception {
    home("/bin/sh");
    CompletableFuture<Throwable> thrown = new CompletableFuture<>();
    Connection connection = sshd.open(ACCOUNT);
    connection.onEnd(
        () -> {
          try {
            connection.files().look(RemotePath.ROOT);
            thrown.complete(null);
          } catch (Throwable e) {
            thrown.complete(e);
          }
        });
    sshd.killSessions();
    assertThat(thrown.get(30, TimeUnit.SECONDS)).isInstanceOf(IllegalStateException.class);
  }

  @Test
  void startFileThatPrintsIsReadOver() throws Exception {
    Path home = home("/bin/bash");
    write(home.resolve(".bashrc"), "echo 'Welcome to levels-web!'; echo 'Quota: 41 %'\n");
    try (Connection connection = sshd.open(ACCOUNT)) {
      assertThat(connection.landing().entries())
          .extracting(entry -> entry.name())
          .contains(".bashrc");
      assertThat(connection.hasShell()).isTrue();
    }
  }

  @Test
  void startFileThatSleepsDelaysAndNoMore() throws Exception {
    Path home = home("/bin/bash");
    write(home.resolve(".bashrc"), "sleep 12\n");
    try (Connection connection = sshd.open(ACCOUNT)) {
      assertThat(connection.hasShell()).isTrue();
      assertThat(connection.whoAmI().uid()).isPositive();
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "/usr/bin/fish",
        "/bin/tcsh",
        "/bin/csh",
        "/bin/zsh",
        "/bin/mksh",
        "/bin/bash",
        "/bin/sh"
      })
  void everyLoginShellGetsATerminalInItsFolder(String shell) throws Exception {
    Assumptions.assumeTrue(Files.isExecutable(Path.of(shell)), shell + " is not installed");
    Path home = home(shell);
    write(home.resolve(".zshrc"), "");
    try (Connection connection = sshd.open(ACCOUNT)) {
      assertThat(connection.hasShell()).isTrue();
      RemotePath odd =
          RemotePath.of(home.toString()).child("gauge $(touch ran) 'run' (touch ran2);!!");
      connection.files().makeFolder(odd, new Mode(0755));
      try (ShellSession session = connection.openShell(odd, 200, 30)) {
        StringBuffer seen = new StringBuffer();
        String ask = "/bin/pwd; /bin/sh -c 'echo do\"\"ne=$LC_ALL='\r";
        session.type(ask.getBytes(StandardCharsets.US_ASCII));
        readUntil(session, seen, "done==");
        assertThat(seen.toString().replaceAll("\\s+", "")).contains("gauge$(touchran)'run'");
      }
      assertThat(home.resolve("ran")).doesNotExist();
      assertThat(odd.text()).satisfies(text -> assertThat(Path.of(text, "ran")).doesNotExist());
      assertThat(Path.of(odd.text(), "ran2")).doesNotExist();
    }
  }

  private static void readUntil(ShellSession shell, StringBuffer seen, String text)
      throws Exception {
    CompletableFuture<Void> reading =
        CompletableFuture.runAsync(
            () -> {
              byte[] buffer = new byte[4096];
              try {
                while (seen.indexOf(text) < 0) {
                  int count = shell.output().read(buffer);
                  assertThat(count).as("the shell ended").isPositive();
                  seen.append(new String(buffer, 0, count, StandardCharsets.UTF_8));
                }
              } catch (IOException e) {
                throw new UncheckedIOException(e);
              }
            });
    assertThat(reading).as(() -> "it said: " + seen).succeedsWithin(Duration.ofSeconds(30));
  }

  @ParameterizedTest
  @ValueSource(strings = {"/bin/rbash", "/usr/sbin/nologin"})
  void findingWorksWhereTheShellRunsNoScripts(String shell) throws Exception {
    Path home = home(shell);
    for (int i = 0; i < 3; i++) {
      write(home.resolve("station-" + i + ".html"), "level");
    }
    try (SystemSshd internal =
            new SystemSshd(
                Files.createDirectories(folder.resolve("internal")), List.of(), List.of());
        Connection connection =
            internal.connector.open(
                new ServerAddress(ACCOUNT, "localhost", internal.port()),
                SignInMethods.byKey(internal.keyFile()),
                TestPrompts.accepting())) {
      int[] found = {0};
      NameSearch.Outcome outcome =
          new NameSearch(connection.files(), connection)
              .run(
                  RemotePath.of(home.toString()),
                  Narrowing.parse("*.html", 0),
                  part -> found[0] += part.size(),
                  new Cancellation());
      assertThat(found[0]).isEqualTo(3);
      assertThat(outcome.byServer()).isFalse();
    }
  }

  /** Whatever a server says of the account, it is not taken without end. */
  @Test
  void anEndlessAnswerAboutTheAccountEnds() throws Exception {
    home("/bin/sh");
    Path tools = Files.createDirectories(folder.resolve("endless-tools"));
    Path id = tools.resolve("id");
    Files.writeString(id, "#!/bin/sh\nexec yes 'uid=0(root) gid=0(root)'\n");
    SystemSshd.run("chmod", "755", id.toString());
    try (SystemSshd endless =
            new SystemSshd(
                Files.createDirectories(folder.resolve("endless")),
                List.of(),
                List.of("SetEnv PATH=" + tools + ":/usr/bin:/bin"));
        Connection connection =
            endless.connector.open(
                new ServerAddress(ACCOUNT, "localhost", endless.port()),
                SignInMethods.byKey(endless.keyFile()),
                TestPrompts.accepting())) {
      assertThat(connection.hasShell()).isFalse();
      assertThat(connection.whoAmI().uid()).isNegative();
      assertThat(connection.files().look(RemotePath.ROOT).isFolder()).isTrue();
    }
  }

  /** With one session a connection, the file service has it; commands sign in once more. */
  @Test
  void shellIsThereWhereOneSessionAtATimeIsAllowed() throws Exception {
    home("/bin/sh");
    try (SystemSshd one =
            new SystemSshd(
                Files.createDirectories(folder.resolve("one")),
                List.of(),
                List.of("MaxSessions 1"));
        Connection connection =
            one.connector.open(
                new ServerAddress(ACCOUNT, "localhost", one.port()),
                SignInMethods.byKey(one.keyFile()),
                TestPrompts.accepting())) {
      // The window asks this while it is not known yet whether there is a shell.
      CompletableFuture<Boolean> asked = new CompletableFuture<>();
      new WindowThread(
              () -> {
                RemoteChanges changes =
                    new RemoteChanges(connection.files(), connection, Journal.NONE);
                asked.complete(changes.copiesThroughHere());
              })
          .start();
      assertThat(asked.get(30, TimeUnit.SECONDS)).isFalse();
      assertThat(connection.hasShell()).isTrue();
      assertThat(connection.script("echo here").outText()).isEqualTo("here\n");
      assertThat(connection.whoAmI().uid()).isPositive();
    }
  }

  /** One that must not wait, as the window's. */
  private static final class WindowThread extends Thread implements BlockingCalls.NeverWaits {
    WindowThread(Runnable task) {
      super(task, "window");
    }
  }
}
