package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

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
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.change.save.AtomicSave;
import zander.core.connect.Connection;
import zander.core.connect.channel.ActFailure;
import zander.core.connect.channel.ActFailure.Reason;
import zander.core.connect.channel.Elevation;
import zander.core.connect.channel.WayUp;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ShellSession;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.journal.Journal;
import zander.core.phrase.AccountPhrase;
import zander.core.rights.Mode;

/** Acting as another account where it is not by sudo and a password alone. */
@Timeout(value = 120, unit = TimeUnit.SECONDS)
class SshdWaysUpTest {
  private static final String ACCOUNT = "zndways";
  private static final String OTHER = "zndgoal";
  private static final String PASSWORD = "heron-at-dusk";
  private static final Path DOAS_RULES = Path.of("/etc/doas.conf");
  private static final Path PAM_RULES = Path.of("/etc/pam.d/zndways");

  /** RFC 4226, appendix D: its key, and the first codes that go with it. */
  private static final String KEY = "3132333435363738393031323334353637383930";

  private static final List<String> CODES = List.of("755224", "287082", "359152");

  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static SystemSudo sudo;
  private static Path file;

  private final Deque<String> passwords = new ArrayDeque<>();
  private final Deque<String> codes = new ArrayDeque<>();
  private final List<Integer> asked = Collections.synchronizedList(new ArrayList<>());
  private final List<String> questions = Collections.synchronizedList(new ArrayList<>());

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSudo.isPossible(), "needs openssh-server and sudo, and to be root");
    sshd = new SystemSshd(folder, List.of(ACCOUNT, OTHER), List.of());
    sudo = new SystemSudo("ways");
    file = Files.writeString(folder.resolve("site.conf"), "level 3\n");
    SystemSshd.run("chown", OTHER + ":", file.toString());
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sudo.close();
      Files.deleteIfExists(PAM_RULES);
      sshd.close();
    }
  }

  @BeforeEach
  void passwords() throws Exception {
    SystemSshd.run("usermod", "-s", "/bin/sh", OTHER);
    // Only what is meant for a test may let it in.
    SystemSshd.setPassword(ACCOUNT, "not-this-one");
    SystemSshd.setPassword(OTHER, PASSWORD);
  }

  private Elevation right(WayUp way, String... given) {
    passwords.addAll(Arrays.asList(given));
    return new Elevation(
        OTHER,
        way,
        new Elevation.PasswordPrompt() {
          @Override
          public char[] password(int wrong) {
            asked.add(wrong);
            String next = passwords.poll();
            return next == null ? null : next.toCharArray();
          }

          @Override
          public char[] answer(String question) {
            questions.add(question);
            String next = codes.poll();
            return next == null ? null : next.toCharArray();
          }
        });
  }

  private static ActFailure refusal(Connection connection, Elevation right) {
    return catchThrowableOfType(ActFailure.class, () -> connection.actAs(right, "/"));
  }

  private static void save(Connection other, String text) throws Exception {
    AtomicSave saver = new AtomicSave(other.files(), other, Journal.NONE);
    AtomicSave.Opened opened = saver.open(RemotePath.of(file.toString()), 1 << 20);
    saver.save(opened.version(), text.getBytes(UTF_8), List.of());
    assertThat(file).hasContent(text.strip());
    assertThat(Files.getOwner(file).getName()).isEqualTo(OTHER);
  }

  /** The account's own shell runs what su starts, whatever that shell is. */
  @ParameterizedTest
  @ValueSource(strings = {"/bin/sh", "/bin/csh", "/usr/bin/fish"})
  void bySuAllIsDoneWithThePasswordOfTheOther(String shell) throws Exception {
    Assumptions.assumeTrue(Files.isExecutable(Path.of(shell)), "there is no " + shell);
    SystemSshd.run("usermod", "-s", shell, OTHER);
    try (Connection connection = sshd.open(ACCOUNT);
        Connection other = connection.actAs(right(WayUp.SU, PASSWORD), folder.toString())) {
      assertThat(other.whoAmI().account()).isEqualTo(OTHER);
      save(other, "by su in " + shell + "\n");
      assertThat(other.script("cat; id -un; exit 7").outText()).isEqualTo(OTHER + "\n");
      try (Pipe pipe = other.pipe("cat; id -un")) {
        pipe.in().write("mine\n".getBytes(UTF_8));
        pipe.in().close();
        assertThat(new String(pipe.out().readAllBytes(), UTF_8)).isEqualTo("mine\n" + OTHER + "\n");
      }
      assertThat(other.moreFiles(2)).hasSize(2);
      try (ShellSession opened = other.openShell(RemotePath.of(folder.toString()), 90, 25)) {
        opened.type("id -un | sed s/^/by-/; echo fin''ished\n".getBytes(UTF_8));
        StringBuilder seen = new StringBuilder();
        PathContract.readUntil(opened, seen, "finished");
        assertThat(seen).contains("by-" + OTHER).doesNotContain("zander-", "heron");
      }
    }
    assertThat(asked).containsExactly(0);
    assertThat(questions).isEmpty();
  }

  @Test
  void aWrongPasswordOfTheOtherIsCountedAndNeverSentTwice() throws Exception {
    try (Connection connection = sshd.open(ACCOUNT)) {
      try (Connection other = connection.actAs(right(WayUp.SU, "wren", PASSWORD), "/")) {
        assertThat(other.script("id -un").outText()).isEqualTo(OTHER + "\n");
      }
      assertThat(asked).containsExactly(0, 1);
      asked.clear();
      ActFailure refused = refusal(connection, right(WayUp.SU, "wren", "egret", "tern", PASSWORD));
      assertThat(refused.reason()).isEqualTo(Reason.WRONG_PASSWORD);
      assertThat(asked).as("three tries").containsExactly(0, 1, 2);
      assertThat(passwords).containsExactly(PASSWORD);
    }
  }

  @Test
  void byDoasAsItsRulesSay() throws Exception {
    Assumptions.assumeTrue(Files.isExecutable(Path.of("/usr/bin/doas")), "there is no doas");
    Assumptions.assumeFalse(Files.exists(DOAS_RULES), "the machine has rules of its own");
    try (Connection connection = sshd.open(ACCOUNT)) {
      doasRule("permit nopass root");
      assertThat(refusal(connection, right(WayUp.DOAS)).reason()).isEqualTo(Reason.NOT_ALLOWED);
      assertThat(asked).isEmpty();
      SystemSshd.setPassword(ACCOUNT, PASSWORD);
      doasRule("permit " + ACCOUNT + " as " + OTHER);
      try (Connection other = connection.actAs(right(WayUp.DOAS, "wren", PASSWORD), "/")) {
        allByTheFileServiceAlone(other);
      }
      assertThat(asked).containsExactly(0, 1);
      asked.clear();
      doasRule("permit nopass " + ACCOUNT + " as " + OTHER);
      try (Connection other = connection.actAs(right(WayUp.DOAS), "/")) {
        save(other, "by doas\n");
        assertThat(other.script("id -un").outText()).isEqualTo(OTHER + "\n");
      }
      assertThat(asked).isEmpty();
    } finally {
      Files.deleteIfExists(DOAS_RULES);
    }
  }

  /** A terminal is no matter of a password, and changes no byte of what goes through it. */
  @ParameterizedTest
  @ValueSource(strings = {"requiretty", "requiretty, use_pty", "requiretty, !authenticate"})
  void whatWantsATerminalIsGivenOne(String options) throws Exception {
    SystemSshd.setPassword(ACCOUNT, PASSWORD);
    sudo.rule("Defaults:" + ACCOUNT + " " + options, ACCOUNT + " ALL=(ALL) ALL");
    boolean isAsked = !options.contains("authenticate");
    try (Connection connection = sshd.open(ACCOUNT);
        Connection other = connection.actAs(right(WayUp.SUDO, "wren", PASSWORD), "/")) {
      allByTheFileServiceAlone(other);
    }
    assertThat(asked).isEqualTo(isAsked ? List.of(0, 1) : List.of());
    passwords.clear();
    try (Connection connection = sshd.open(ACCOUNT);
        Connection root = connection.actAs(new Elevation("root", wrong -> letters()), "/")) {
      assertThat(root.whoAmI().uid()).isZero();
      assertThat(root.files().othersMayTurn(RemotePath.of("/tmp/any"))).isTrue();
      assertThat(root.files().othersMayTurn(RemotePath.of("/etc/any"))).isFalse();
    }
  }

  private static char[] letters() {
    return PASSWORD.toCharArray();
  }

  private static void allByTheFileServiceAlone(Connection other) throws Exception {
    save(other, "in a terminal\n");
    assertThat(other.hasShell()).isFalse();
    assertThat(other.whyNoShell()).isEqualTo(AccountPhrase.WANTS_A_TERMINAL.of());
    assertThat(other.moreFiles(2)).hasSize(2);
    byte[] all = new byte[1 << 20];
    for (int i = 0; i < all.length; i++) {
      all[i] = (byte) (i % 256 ^ i / 256);
    }
    RemotePath made = other.landing().home().child("every-byte");
    try (RemoteWriter writer = other.files().create(made, new Mode(0600), other.moreFiles(2))) {
      writer.write(all, 0, all.length);
    }
    try {
      assertThat(Path.of(made.text())).hasBinaryContent(all);
      assertThat(other.files().readAll(made, all.length)).isEqualTo(all);
    } finally {
      other.files().removeFile(made);
    }
    try (ShellSession shell = other.openShell(RemotePath.of("/"), 90, 25)) {
      shell.type("echo by-$(id -un) fin''ished\n".getBytes(UTF_8));
      StringBuilder seen = new StringBuilder();
      PathContract.readUntil(shell, seen, "finished");
      assertThat(seen).contains("by-" + OTHER);
    }
  }

  private static void doasRule(String line) throws Exception {
    Files.writeString(DOAS_RULES, line + "\n");
    Files.setPosixFilePermissions(DOAS_RULES, PosixFilePermissions.fromString("r--------"));
  }

  /** What PAM asks is shown as it comes; with a code for each, one file service does it all. */
  @Test
  void aCodeIsAskedForOnceAndTheFileServiceDoesAll() throws Exception {
    SystemSshd.setPassword(ACCOUNT, PASSWORD);
    Path keys = folder.resolve("codes");
    Files.writeString(keys, "HOTP " + ACCOUNT + " - " + KEY + "\n");
    Files.setPosixFilePermissions(keys, PosixFilePermissions.fromString("rw-------"));
    Files.writeString(
        PAM_RULES,
        "auth required pam_oath.so usersfile="
            + keys
            + " window=5\nauth required pam_unix.so\naccount required pam_permit.so\n");
    sudo.rule("Defaults:" + ACCOUNT + " pam_service=zndways", ACCOUNT + " ALL=(ALL) ALL");
    try (Connection connection = sshd.open(ACCOUNT)) {
      codes.add("000000");
      assertThat(refusal(connection, right(WayUp.SUDO, PASSWORD)).reason())
          .isIn(Reason.GIVEN_UP, Reason.WRONG_PASSWORD);
      questions.clear();
      asked.clear();
      passwords.clear();
      codes.addAll(CODES);
      try (Connection other = connection.actAs(right(WayUp.SUDO, PASSWORD), "/")) {
        save(other, "by a code\n");
        assertThat(other.hasShell()).isFalse();
        assertThat(other.whyNoShell()).isEqualTo(AccountPhrase.ASKS_EACH_TIME.of());
        assertThat(other.moreFiles(2)).isEmpty();
        assertThat(questions).singleElement().asString().contains("One-time password");
        assertThat(asked).containsExactly(0);
        try (ShellSession shell = other.openShell(RemotePath.of("/"), 90, 25)) {
          shell.type("echo by-$(id -un) fin''ished\n".getBytes(UTF_8));
          StringBuilder seen = new StringBuilder();
          PathContract.readUntil(shell, seen, "finished");
          assertThat(seen).contains("by-" + OTHER);
        }
        assertThat(questions).hasSize(2);
      }
    }
  }

  /** Programs that the server does not have are told as such, so that another can be tried. */
  @Test
  void aServerWithoutSudo(@TempDir Path other) throws Exception {
    Path programs = Files.createDirectory(other.resolve("programs"));
    for (String name : List.of("sh", "id", "cat", "su", "printf")) {
      Files.createSymbolicLink(programs.resolve(name), Path.of("/bin").resolve(name));
    }
    try (SystemSshd server = new SystemSshd(other, List.of(), List.of("SetEnv PATH=" + programs));
        Connection connection = server.open(ACCOUNT)) {
      assertThat(refusal(connection, right(WayUp.SUDO)).reason()).isEqualTo(Reason.NO_PROGRAM);
      assertThat(refusal(connection, right(WayUp.DOAS)).reason()).isEqualTo(Reason.NO_PROGRAM);
      try (Connection acting = connection.actAs(right(WayUp.SU, PASSWORD), "/")) {
        assertThat(acting.whoAmI().account()).isEqualTo(OTHER);
      }
    }
  }
}
