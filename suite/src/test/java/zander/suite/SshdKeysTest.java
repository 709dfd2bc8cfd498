package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.time.Duration;
import org.junit.jupiter.api.Test;
import zander.core.authorize.AuthorizedKeys;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.keys.Agent;
import zander.core.connect.keys.KeyFile;
import zander.core.connect.keys.KeyMaker;
import zander.core.connect.keys.PublicKeyLine;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.connect.report.SignInStep;
import zander.core.connect.signin.SignInMethods;
import zander.core.journal.Journal;
import zander.core.phrase.Phrase;
import zander.core.phrase.SignInPhrase;
import zander.core.trust.KnownHosts;
import zander.standin.demo.DemoKeys;
import zander.standin.server.StandinAgent;

/** Keys at the system's own sshd: certificates, the agent, and the lists of both sides. */
class SshdKeysTest extends SshdReachFixture {
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
        assertThat(in.keyName()).isEqualTo(Phrase.quoted("certified-" + type + "-cert.pub"));
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
    assertThat(talk.notes).anyMatch(note -> note.fact().is(SignInPhrase.VOUCHED_FOR));
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
        AuthorizedKeys keys = new AuthorizedKeys(in.files(), in, Journal.NONE, in.whoAmI().home());
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
