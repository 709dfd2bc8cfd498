package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.connect.Connection;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.command.ShellSession;
import zander.core.connect.signin.SignInMethods;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.work.Cancellation;

/** The whole path against the system's own server. */
class SshdPathTest extends PathContract {
  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static final AtomicInteger NUMBER = new AtomicInteger();

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of("zndpath", "znddeploy"), List.of());
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  @Override
  Connection asUser() throws IOException {
    return sshd.open("zndpath");
  }

  @Override
  Connection asRoot() throws IOException {
    return sshd.open("root");
  }

  @Override
  RemotePath freshFolder() throws IOException {
    Path fresh = folder.resolve("zndpath/fresh-" + NUMBER.incrementAndGet());
    Files.createDirectory(fresh);
    try {
      SystemSshd.run("chown", "zndpath:zndpath", fresh.toString());
    } catch (InterruptedException e) {
      throw new IOException(e);
    }
    return RemotePath.of(fresh.toString());
  }

  @Override
  int otherUid(Connection connection) {
    return connection.files().names().uidOf("znddeploy").orElseThrow();
  }

  /** Keys as the system's own tool makes them. */
  @ParameterizedTest
  @CsvSource({
    "ed25519, ed25519, '', ''",
    "ed25519-locked, ed25519, otter, ''",
    "ecdsa, ecdsa, '', ''",
    "ecdsa-pem, ecdsa, '', PEM",
    "rsa, rsa, '', ''",
    "rsa-pem-locked, rsa, otter, PEM",
    "rsa-pkcs8, rsa, '', PKCS8",
  })
  void signsInWithEveryKindOfKey(String name, String type, String passphrase, String form)
      throws Exception {
    String[] options =
        form.isEmpty()
            ? new String[] {"-t", type, "-N", passphrase}
            : new String[] {"-t", type, "-N", passphrase, "-m", form};
    Path key = sshd.newKey(name, options);
    TestPrompts talk = TestPrompts.accepting();
    talk.passphrase = passphrase;
    try (Connection connection =
        sshd.connector.open(
            new ServerAddress("zndpath", "localhost", sshd.port()),
            SignInMethods.byKey(key),
            talk)) {
      assertThat(connection.keyType()).isEqualTo(type);
      assertThat(connection.whoAmI().uid()).isPositive();
    }
    assertThat(talk.asked.contains("passphrase")).isEqualTo(!passphrase.isEmpty());
  }

  /** The tree on the server's own disk, not only what comes back. */
  @Test
  void putsTheTreeOnTheServersDisk() throws IOException {
    Path source = local.resolve("source");
    OddTree.make(source);
    RemotePath target = freshFolder();
    try (Connection connection = asUser()) {
      new Transfer(
              new LocalEndpoint(local),
              new RemoteEndpoint(connection.files(), target, Journal.NONE),
              ConflictRule.ASK,
              NEVER_ASKED,
              new Cancellation())
          .run(List.of("source"));
    }
    assertThat(describe(Path.of(target.text(), "source"))).isEqualTo(describe(source));
  }

  @Test
  void runsAFullScreenProgramThatFollowsTheSize() throws Exception {
    RemotePath target = freshFolder();
    try (Connection connection = asUser();
        ShellSession shell = connection.openShell(target, 90, 25)) {
      StringBuilder seen = new StringBuilder();
      shell.type("stty size; echo on''e\n".getBytes(StandardCharsets.UTF_8));
      readUntil(shell, seen, "one");
      assertThat(seen).contains("25 90");
      shell.resize(120, 40);
      shell.type("stty size; echo tw''o\n".getBytes(StandardCharsets.UTF_8));
      readUntil(shell, seen, "two");
      assertThat(seen).contains("40 120");
    }
  }
}
