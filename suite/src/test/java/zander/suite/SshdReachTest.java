package zander.suite;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.authorize.AuthorizedKeys;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.keys.Agent;
import zander.core.connect.keys.KeyFile;
import zander.core.connect.keys.KeyMaker;
import zander.core.connect.keys.PublicKeyLine;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.connect.report.SignInStep;
import zander.core.connect.signin.Hop;
import zander.core.connect.signin.SignInMethods;
import zander.core.journal.Journal;
import zander.core.trust.KnownHosts;
import zander.standin.demo.DemoKeys;
import zander.standin.server.StandinAgent;

/** Reaching the system's own sshd: certificates, the agent, jumps, passwords, and its limits. */
class SshdReachTest {
  private static final String WARDEN = "zndwarden";
  private static final String PASSWORD = "heron-at-dusk-7";

  @TempDir Path folder;
  private final List<AutoCloseable> open = new ArrayList<>();

  @BeforeEach
  void possible() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs root and the system's sshd");
    // sshd reads the lists of keys as the account that signs in.
    Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxr-xr-x"));
  }

  @AfterEach
  void close() throws Exception {
    for (int i = open.size() - 1; i >= 0; i--) {
      open.get(i).close();
    }
    try (var files = Files.walk(folder)) {
      for (Path file : files.filter(Files::isRegularFile).toList()) {
        String text = new String(Files.readAllBytes(file), ISO_8859_1);
        assertThat(text).as(file.toString()).doesNotContain(PASSWORD);
      }
    }
  }

  private SystemSshd start(String name, List<String> accounts, String... config) throws Exception {
    SystemSshd sshd =
        new SystemSshd(Files.createDirectory(folder.resolve(name)), accounts, List.of(config));
    open.add(sshd);
    return sshd;
  }

  private SystemSshd start(String... config) throws Exception {
    return start("one", List.of(WARDEN), config);
  }

  /** Finds names on the loopback; the agent, if any, is the test's own. */
  private Connector connector(Agent agent) {
    Connector made =
        new Connector(
            new KnownHosts(folder.resolve("known_hosts")),
            address ->
                List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), address.port())),
            agent,
            Duration.ofSeconds(20));
    open.add(made);
    return made;
  }

  private static ConnectFailure failure(
      Connector connector, ServerAddress address, SignInMethods ways, TestPrompts talk) {
    return catchThrowableOfType(
        ConnectFailure.class, () -> connector.open(address, ways, talk).close());
  }

  @Test
  void aCertificateLetsAKeyInThatIsOnNoList() throws Exception {
    SystemSshd sshd = start("TrustedUserCAKeys " + folder.resolve("authority.pub"));
    Path authority = folder.resolve("authority");
    SystemSshd.run("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", authority.toString());
    Connector connector = connector(null);
    for (String type : new String[] {"ed25519", "ecdsa", "rsa"}) {
      Path key = folder.resolve("certified-" + type);
      SystemSshd.run("ssh-keygen", "-q", "-t", type, "-N", "otter", "-f", key.toString());
      TestPrompts talk = TestPrompts.accepting();
      talk.passphrase = "otter";
      assertThat(failure(connector, sshd.address(WARDEN), SignInMethods.byKey(key), talk).reason())
          .isEqualTo(Reason.KEY_REFUSED);
      certify(authority, key, "+1h");
      talk.asked.clear();
      try (Connection in = connector.open(sshd.address(WARDEN), SignInMethods.byKey(key), talk)) {
        assertThat(in.keyName()).isEqualTo("certified-" + type + "-cert.pub");
        assertThat(in.keyType()).isEqualTo(type);
      }
      assertThat(talk.asked).containsExactly("passphrase");
      certify(authority, key, "-2h:-1h");
      TestPrompts late = TestPrompts.accepting();
      late.passphrase = "otter";
      failure(connector, sshd.address(WARDEN), SignInMethods.byKey(key), late);
      assertThat(late.proofs()).first().asString().contains("-cert.pub: it is valid from");
    }
  }

  private static void certify(Path authority, Path key, String valid) throws Exception {
    SystemSshd.run(
        "ssh-keygen",
        "-q",
        "-s",
        authority.toString(),
        "-I",
        "warden at the desk",
        "-n",
        WARDEN,
        "-V",
        valid,
        key + ".pub");
  }

  @Test
  void aHostVouchedForByAnAuthorityIsKnown() throws Exception {
    Path authority = folder.resolve("hosts-authority");
    SystemSshd.run("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", authority.toString());
    SystemSshd sshd = start("HostCertificate " + folder.resolve("one/hostkey-cert.pub"));
    Path open = folder.resolve("one/hostkey.pub");
    Files.writeString(open, DemoKeys.publicLine(DemoKeys.pair("suite host"), "host"));
    SystemSshd.run(
        "ssh-keygen",
        "-q",
        "-s",
        authority.toString(),
        "-h",
        "-I",
        "gauge",
        "-n",
        "localhost",
        open.toString());
    sshd.restart();
    String authorityLine = Files.readString(folder.resolve("hosts-authority.pub"));
    Files.writeString(
        folder.resolve("known_hosts"), "@cert-authority [localhost]:* " + authorityLine);
    Connector connector =
        new Connector(
            new KnownHosts(folder.resolve("known_hosts")),
            zander.core.connect.address.HostLookup.system(),
            null,
            Duration.ofSeconds(20));
    this.open.add(connector);
    TestPrompts talk = TestPrompts.accepting();
    connector.open(sshd.address(WARDEN), SignInMethods.byKey(sshd.keyFile()), talk).close();
    assertThat(talk.asked).isEmpty();
    assertThat(talk.notes).anyMatch(note -> note.fact().contains("vouched for by"));
    Files.writeString(folder.resolve("known_hosts"), "");
    connector.open(sshd.address(WARDEN), SignInMethods.byKey(sshd.keyFile()), talk).close();
    assertThat(talk.asked).hasSize(1);
  }

  @Test
  void theAgentSignsForTheChosenKeyFirst() throws Exception {
    SystemSshd sshd = start("MaxAuthTries 2");
    StandinAgent agent = new StandinAgent(folder.resolve("agent.sock"));
    open.add(agent);
    for (int i = 0; i < 8; i++) {
      agent.add(DemoKeys.pair("stranger " + i), "stranger " + i);
    }
    agent.add(DemoKeys.pair("suite user"), "warden at the desk");
    Connector connector = connector(new Agent(agent.socket()));
    Path locked = folder.resolve("locked");
    Files.copy(sshd.keyFile(), locked);
    SystemSshd.run("ssh-keygen", "-q", "-p", "-N", "otter", "-f", locked.toString());

    TestPrompts talk = TestPrompts.accepting();
    SignInMethods chosen = new SignInMethods(locked, null, true, false);
    connector.open(sshd.address(WARDEN), chosen, talk).close();
    assertThat(talk.asked).doesNotContain("passphrase");
    assertThat(talk.proofs()).first().asString().startsWith("OFFERED locked in the agent");

    ConnectFailure full =
        failure(connector, sshd.address(WARDEN), SignInMethods.byAgent(), TestPrompts.accepting());
    assertThat(full.reason()).isEqualTo(Reason.TOO_MANY_TRIES);
    assertThat(full.step()).isEqualTo(SignInStep.SIGN_IN);
  }

  @Test
  void everyKindOfKeySignsInTheAgent() throws Exception {
    SystemSshd sshd = start();
    StandinAgent agent = new StandinAgent(folder.resolve("agent.sock"));
    open.add(agent);
    Connector connector = connector(new Agent(agent.socket()));
    for (String type : new String[] {"ed25519", "ecdsa", "rsa"}) {
      Path key = sshd.newKey("in-agent-" + type, "-t", type, "-N", "");
      agent.removeAll();
      agent.add(KeyFile.read(key).open(new char[0]), type);
      Files.delete(key);
      TestPrompts talk = TestPrompts.accepting();
      try (Connection in = connector.open(sshd.address(WARDEN), SignInMethods.byAgent(), talk)) {
        assertThat(in.keyType()).isEqualTo(type);
      }
    }
    agent.close();
    ConnectFailure gone =
        failure(connector, sshd.address(WARDEN), SignInMethods.byAgent(), TestPrompts.accepting());
    assertThat(gone.reason()).isEqualTo(Reason.NO_WAY_LEFT);
  }

  @Test
  void twoTriesAreEnoughForAChosenKeyAndAPassword() throws Exception {
    SystemSshd sshd =
        start("MaxAuthTries 2", "PasswordAuthentication yes", "KbdInteractiveAuthentication no");
    SystemSshd.setPassword(WARDEN, PASSWORD);
    Path other = folder.resolve("other");
    KeyMaker.make(KeyMaker.Kind.ED25519, "", new char[0], other);
    Connector connector = connector(null);
    TestPrompts talk = TestPrompts.withPassword(PASSWORD);
    SignInMethods ways = SignInMethods.byKey(other).orPassword();
    connector.open(sshd.address(WARDEN), ways, talk).close();
    assertThat(talk.asked).filteredOn(asked -> asked.equals("password")).hasSize(1);

    TestPrompts wrong = TestPrompts.withPassword("not this one");
    ConnectFailure failed = failure(connector, sshd.address(WARDEN), ways, wrong);
    assertThat(failed.reason()).isIn(Reason.TOO_MANY_TRIES, Reason.PASSWORD_REFUSED);
    assertThat(wrong.asked).filteredOn(asked -> asked.equals("password")).hasSize(1);
  }

  @Test
  void wrongPasswordsAreCountedAndNoneIsSentTwiceByItself() throws Exception {
    SystemSshd sshd = start("PasswordAuthentication yes", "KbdInteractiveAuthentication no");
    SystemSshd.setPassword(WARDEN, PASSWORD);
    List<Integer> counted = new ArrayList<>();
    TestPrompts talk =
        new TestPrompts() {
          @Override
          public char[] password(ServerAddress address, int wrong) {
            counted.add(wrong);
            return wrong < 2 ? "wrong".toCharArray() : PASSWORD.toCharArray();
          }
        };
    connector(null).open(sshd.address(WARDEN), SignInMethods.byPassword(), talk).close();
    assertThat(counted).containsExactly(0, 1, 2);
    assertThat(sshd.log().split("Failed password", -1)).hasSize(3);
  }

  @Test
  void answersTheQuestionsOfPam() throws Exception {
    SystemSshd sshd =
        start("UsePAM yes", "KbdInteractiveAuthentication yes", "PasswordAuthentication no");
    SystemSshd.setPassword(WARDEN, PASSWORD);
    TestPrompts talk = TestPrompts.accepting();
    talk.answers = List.of(PASSWORD);
    connector(null).open(sshd.address(WARDEN), SignInMethods.byPassword(), talk).close();
    assertThat(talk.asked).last().asString().startsWith("asked").contains("assword");
    assertThat(sshd.log()).contains("Accepted keyboard-interactive/pam");
  }

  @Test
  void aKeyAndAPasswordTogether() throws Exception {
    SystemSshd sshd =
        start(
            "PasswordAuthentication yes",
            "KbdInteractiveAuthentication no",
            "AuthenticationMethods publickey,password");
    SystemSshd.setPassword(WARDEN, PASSWORD);
    Connector connector = connector(null);
    TestPrompts talk = TestPrompts.withPassword(PASSWORD);
    SignInMethods key = SignInMethods.byKey(sshd.keyFile());
    connector.open(sshd.address(WARDEN), key.orPassword(), talk).close();
    assertThat(talk.proofs()).anyMatch(proof -> proof.startsWith("TAKEN"));
    ConnectFailure half = failure(connector, sshd.address(WARDEN), key, TestPrompts.accepting());
    assertThat(half.reason()).isEqualTo(Reason.MORE_WANTED);
  }

  @Test
  void goesThroughASecondServer() throws Exception {
    SystemSshd gate = start("gate", List.of(WARDEN), "AllowTcpForwarding yes");
    SystemSshd store = start("store", List.of("zndcut"));
    Connector connector = connector(null);
    TestPrompts talk = TestPrompts.accepting();
    Hop through = new Hop(gate.address(WARDEN), SignInMethods.byKey(gate.keyFile()));
    Hop goal = new Hop(store.address("zndcut"), SignInMethods.byKey(store.keyFile()));
    try (Connection in = connector.open(List.of(through, goal), null, talk)) {
      assertThat(in.whoAmI().account()).isEqualTo("zndcut");
      assertThat(in.run("id -un", new byte[0]).outText()).isEqualTo("zndcut\n");
      byte[] much = new byte[3 << 20];
      new java.util.Random(1).nextBytes(much);
      assertThat(in.run("cat", much).out()).isEqualTo(much);
    }
    assertThat(talk.notes).extracting(note -> note.hop().account()).contains(WARDEN, "zndcut");
    // Three in a row, the first of them twice.
    connector.open(List.of(through, goal, through), "/etc", talk).close();
  }

  @Test
  void tellsWhyAJumpHostDidNotLeadOn() throws Exception {
    SystemSshd gate = start("gate", List.of(WARDEN), "AllowTcpForwarding no");
    Hop through = new Hop(gate.address(WARDEN), SignInMethods.byKey(gate.keyFile()));
    ConnectFailure refused =
        catchThrowableOfType(
            ConnectFailure.class,
            () -> connector(null).open(List.of(through, through), null, TestPrompts.accepting()));
    assertThat(refused.reason()).isEqualTo(Reason.JUMP_REFUSED);
    assertThat(refused.step()).isEqualTo(SignInStep.PORT);
  }

  @Test
  void opensMoreLinesWhereChannelsAreLimited() throws Exception {
    SystemSshd sshd = start("MaxSessions 1");
    TestPrompts talk = TestPrompts.accepting();
    try (Connection in =
        connector(null).open(sshd.address(WARDEN), SignInMethods.byKey(sshd.keyFile()), talk)) {
      assertThat(in.lineCount()).isEqualTo(1);
      assertThat(in.landing().failure()).isNull();
      assertThat(in.run("echo one", new byte[0]).outText()).isEqualTo("one\n");
      var shell = in.openShell(in.whoAmI().home(), 80, 24);
      assertThat(in.run("echo two", new byte[0]).outText()).isEqualTo("two\n");
      assertThat(in.lineCount()).isEqualTo(3);
      shell.close();
    }
    assertThat(talk.asked).hasSize(1);
  }

  @Test
  void aForcedDisconnectEndsTheConnectionAndASecondOneIsAsGood() throws Exception {
    SystemSshd sshd = start();
    Connector connector = connector(null);
    Connection first =
        connector.open(
            sshd.address(WARDEN), SignInMethods.byKey(sshd.keyFile()), TestPrompts.accepting());
    java.util.concurrent.CountDownLatch ended = new java.util.concurrent.CountDownLatch(1);
    first.onEnd(ended::countDown);
    first.run("kill -9 $PPID", new byte[0]);
    assertThat(ended.await(20, java.util.concurrent.TimeUnit.SECONDS)).isTrue();
    assertThat(first.isOpen()).isFalse();
    assertThat(first.prove(Duration.ofSeconds(2))).isFalse();
    connector
        .open(sshd.address(WARDEN), SignInMethods.byKey(sshd.keyFile()), TestPrompts.accepting())
        .close();
  }

  /** Signed in by password: the key goes on the server once, whatever the modes were. */
  @Test
  void putsAKeyOnTheServerThatSshdThenTakes() throws Exception {
    SystemSshd sshd =
        start(
            "StrictModes yes",
            "PasswordAuthentication yes",
            "KbdInteractiveAuthentication no",
            "AuthorizedKeysFile .ssh/authorized_keys");
    SystemSshd.setPassword(WARDEN, PASSWORD);
    Path home = folder.resolve("one").resolve(WARDEN);
    Connector connector = connector(null);
    String[] befores = {
      "true",
      "mkdir -m 777 .ssh; chmod 777 .",
      "mkdir .ssh; printf '%s' '# mine' > .ssh/authorized_keys; chmod 666 .ssh/authorized_keys"
    };
    for (int i = 0; i < befores.length; i++) {
      Path key = folder.resolve("put-" + i);
      PublicKeyLine line = KeyMaker.make(KeyMaker.Kind.ED25519, "warden", new char[0], key);
      SystemSshd.run("rm", "-rf", home.resolve(".ssh").toString());
      try (Connection in =
          connector.open(
              sshd.address(WARDEN),
              SignInMethods.byPassword(),
              TestPrompts.withPassword(PASSWORD))) {
        in.run(befores[i], new byte[0]);
        AuthorizedKeys keys = new AuthorizedKeys(in.files(), Journal.NONE, in.whoAmI().home());
        assertThat(keys.plan(line.key())).isEqualTo(keys.put(line));
        assertThat(keys.put(line))
            .extracting(AuthorizedKeys.Planned::step)
            .containsExactly(AuthorizedKeys.Step.IS_THERE);
      }
      try (Connection in =
          connector.open(sshd.address(WARDEN), SignInMethods.byKey(key), TestPrompts.accepting())) {
        assertThat(in.keyType()).isEqualTo("ed25519");
      }
      Path file = home.resolve(".ssh/authorized_keys");
      assertThat(SystemSshd.run("ssh-keygen", "-l", "-f", file.toString()))
          .contains(line.key().fingerprint());
      assertThat(Files.readString(file).lines().filter(l -> l.contains(line.key().base64())))
          .hasSize(1);
      assertThat(home.resolve(".ssh")).isDirectoryNotContaining("glob:**zander-*");
    }
    assertThat(Files.readString(home.resolve(".ssh/authorized_keys"))).startsWith("# mine\n");
  }

  @Test
  void theSystemsKnownHostsAndOursAreOne() throws Exception {
    SystemSshd sshd = start();
    Connector connector = connector(null);
    connector
        .open(sshd.address(WARDEN), SignInMethods.byKey(sshd.keyFile()), TestPrompts.accepting())
        .close();
    Path known = folder.resolve("known_hosts");
    String name = "[localhost]:" + sshd.port();
    assertThat(SystemSshd.run("ssh-keygen", "-F", name, "-f", known.toString())).contains("found");
    SystemSshd.run("ssh-keygen", "-H", "-f", known.toString());
    Files.writeString(known, "# kept\n", StandardOpenOption.APPEND);
    TestPrompts silent = TestPrompts.accepting();
    connector.open(sshd.address(WARDEN), SignInMethods.byKey(sshd.keyFile()), silent).close();
    assertThat(silent.asked).isEmpty();
    new KnownHosts(known)
        .replace(
            name,
            zander.core.trust.WireKey.ofBlob(
                KeyMaker.make(KeyMaker.Kind.ED25519, "", new char[0], folder.resolve("else"))
                    .key()
                    .blob()));
    ConnectFailure changed =
        failure(connector, sshd.address(WARDEN), SignInMethods.byKey(sshd.keyFile()), silent);
    assertThat(changed.reason()).isEqualTo(Reason.HOST_KEY_CHANGED);
    new KnownHosts(known).replace(name, changed.shown());
    connector.open(sshd.address(WARDEN), SignInMethods.byKey(sshd.keyFile()), silent).close();
    assertThat(known).content().startsWith("# kept\n");
  }
}
