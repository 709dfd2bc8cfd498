package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.apache.sshd.common.config.keys.writer.openssh.OpenSSHKeyEncryptionContext;
import org.apache.sshd.common.config.keys.writer.openssh.OpenSSHKeyPairResourceWriter;
import org.junit.jupiter.api.Test;
import zander.core.connect.Connection;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.keys.KeyFile;
import zander.core.connect.keys.KeyMaker;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.connect.report.SignInStep;
import zander.core.connect.signin.SignInMethods;
import zander.core.phrase.SignInPhrase;
import zander.standin.demo.Demo;
import zander.standin.demo.DemoKeys;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** Every way a sign-in can go, and what is told of it. */
class SignInTest extends SignInFixture {
  @Test
  void asksForTheHostKeyOnceAndRemembersIt() throws IOException {
    TestPrompts talk = TestPrompts.accepting();
    SignInMethods ways = SignInMethods.byKey(riverside.demo.keyFile());
    try (Connection first = riverside.connector.open(Riverside.warden("gate"), ways, talk)) {
      assertThat(first.whoAmI().home().text()).isEqualTo("/home/warden");
      assertThat(first.keyType()).isEqualTo("ed25519");
      assertThat(talk.asked).containsExactly("host key " + first.hostKey().fingerprint());
    }
    assertThat(talk.steps).containsExactly(SignInStep.values());
    TestPrompts silent = TestPrompts.accepting();
    riverside.connector.open(Riverside.warden("gate"), ways, silent).close();
    assertThat(silent.asked).isEmpty();
    assertThat(Files.getPosixFilePermissions(riverside.knownHosts.file())).hasSize(2);
  }

  @Test
  void stopsAtAChangedHostKeyBeforeAnySecret() throws IOException {
    riverside.open("gate").close();
    var server = riverside.demo.server("gate");
    server.setHostKey(DemoKeys.pair("somebody else"));
    TestPrompts talk = TestPrompts.withPassword("heron-at-dusk");
    ConnectFailure failure = failureOf(Riverside.warden("gate"), SignInMethods.byPassword(), talk);
    assertFailed(failure, SignInStep.HOST_KEY, Reason.HOST_KEY_CHANGED);
    assertThat(failure.known()).hasSize(1);
    assertThat(failure.shown()).isNotEqualTo(failure.known().get(0));
    assertThat(talk.asked).isEmpty();
    assertThat(server.passwordsSeen()).isZero();
  }

  @Test
  void sendsNothingWhenTheHostKeyIsDeclined() throws IOException {
    TestPrompts talk = TestPrompts.withPassword("heron-at-dusk");
    talk.acceptHostKey = false;
    ConnectFailure failure = failureOf(Riverside.warden("gate"), SignInMethods.byPassword(), talk);
    assertFailed(failure, SignInStep.HOST_KEY, Reason.HOST_KEY_DECLINED);
    assertThat(talk.asked).hasSize(1);
    assertThat(riverside.demo.server("gate").passwordsSeen()).isZero();
    assertThat(riverside.knownHosts.file()).content().doesNotContain("gate");
  }

  @Test
  void refusesARevokedHostKey() throws IOException {
    riverside.open("gate").close();
    List<String> lines = Files.readAllLines(riverside.knownHosts.file());
    String line = lines.get(lines.size() - 1) + "\n";
    Files.writeString(
        riverside.knownHosts.file(), line + "@revoked * " + line.substring(line.indexOf(' ') + 1));
    assertFailed(
        failureOf(
            Riverside.warden("gate"),
            SignInMethods.byKey(riverside.demo.keyFile()),
            TestPrompts.accepting()),
        SignInStep.HOST_KEY,
        Reason.HOST_KEY_REVOKED);
  }

  @Test
  void tellsAWrongKeyFromAWrongPassword() throws IOException {
    Path other = folder.resolve("other");
    DemoKeys.writePrivate(DemoKeys.pair("other"), "other", other);
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInMethods.byKey(other), TestPrompts.accepting()),
        SignInStep.SIGN_IN,
        Reason.KEY_REFUSED);
    TestPrompts wrong = TestPrompts.withPassword("not this one");
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInMethods.byPassword(), wrong),
        SignInStep.SIGN_IN,
        Reason.PASSWORD_REFUSED);
    TestPrompts right = TestPrompts.withPassword("heron-at-dusk");
    riverside
        .connector
        .open(Riverside.warden("gate"), SignInMethods.byKey(other).orPassword(), right)
        .close();
    assertThat(right.asked).containsExactly("password");
  }

  @Test
  void givesUpWhenThePersonDoes() {
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInMethods.byPassword(), TestPrompts.accepting()),
        SignInStep.SIGN_IN,
        Reason.GIVEN_UP);
  }

  @Test
  void opensAKeyUnderAPassphrase() throws Exception {
    Path file = folder.resolve("locked");
    OpenSSHKeyEncryptionContext lock = new OpenSSHKeyEncryptionContext();
    lock.setPassword("otter");
    lock.setCipherType("256");
    ByteArrayOutputStream text = new ByteArrayOutputStream();
    OpenSSHKeyPairResourceWriter.INSTANCE.writePrivateKey(
        DemoKeys.pair("warden"), "warden", lock, text);
    Files.write(file, text.toByteArray());
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInMethods.byKey(file), TestPrompts.accepting()),
        SignInStep.SIGN_IN,
        Reason.KEY_FILE_OPEN);
    KeyFile.closeToOthers(file);
    TestPrompts talk = TestPrompts.accepting();
    talk.passphrase = "otter";
    riverside.connector.open(Riverside.warden("gate"), SignInMethods.byKey(file), talk).close();
    assertThat(talk.asked).last().isEqualTo("passphrase");

    TestPrompts wrong = TestPrompts.accepting();
    wrong.passphrase = "stoat";
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInMethods.byKey(file), wrong),
        SignInStep.SIGN_IN,
        Reason.WRONG_PASSPHRASE);
    assertThat(wrong.asked).hasSize(3);
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInMethods.byKey(file), TestPrompts.accepting()),
        SignInStep.SIGN_IN,
        Reason.GIVEN_UP);
  }

  @Test
  void tellsWhatIsWrongWithAKeyFile() throws IOException {
    assertFailed(
        failureOf(
            Riverside.warden("gate"),
            SignInMethods.byKey(folder.resolve("none")),
            TestPrompts.accepting()),
        SignInStep.SIGN_IN,
        Reason.KEY_FILE_MISSING);
    Path open = folder.resolve("key.pub");
    Files.writeString(open, DemoKeys.publicLine(DemoKeys.pair("warden"), "warden"));
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInMethods.byKey(open), TestPrompts.accepting()),
        SignInStep.SIGN_IN,
        Reason.KEY_PUBLIC_HALF);
  }

  @Test
  void anAccountWithoutAShellHasFilesAllTheSame() throws IOException {
    var machine = riverside.demo.server("levels-web").machine();
    World world = machine.world();
    world.mkdir(Caller.ROOT, "/srv/levels/.ssh", 0700);
    world.chown(Caller.ROOT, "/srv/levels/.ssh", 33, 33, true);
    world.chmod(Caller.ROOT, "/srv/levels", 0755);
    byte[] line = DemoKeys.publicLine(DemoKeys.pair("warden"), "warden").getBytes(UTF_8);
    world
        .open(
            Caller.ROOT,
            "/srv/levels/.ssh/authorized_keys",
            new World.Open(false, true, true, true, false, 0644))
        .write(0, line, 0, line.length);
    TestPrompts talk = TestPrompts.accepting();
    ServerAddress web = new ServerAddress("web", "levels-web" + Demo.DOMAIN, 22);
    try (Connection open =
        riverside.connector.open(web, SignInMethods.byKey(riverside.demo.keyFile()), talk)) {
      assertThat(open.whoAmI().uid()).isEqualTo(-1);
      assertThat(open.landing().home().text()).isEqualTo("/srv/levels");
      assertThat(open.landing().entries()).isNotEmpty();
    }
    assertThat(talk.notes)
        .anyMatch(note -> note.step() == SignInStep.SHELL && note.fact().is(SignInPhrase.NO_SHELL));
  }

  @Test
  void answersSeveralQuestionsAtOnce() throws IOException {
    var server = riverside.demo.server("lab-box");
    server.setOneTimeCode("kingfisher-41");
    TestPrompts talk = TestPrompts.accepting();
    talk.answers = List.of("heron-at-dusk", "kingfisher-41");
    riverside.connector.open(Riverside.warden("lab-box"), SignInMethods.byPassword(), talk).close();
    assertThat(talk.asked).contains("asked Password:", "asked One-time code:");
    TestPrompts wrong = TestPrompts.accepting();
    wrong.answers = List.of("heron-at-dusk", "wren-2");
    int before = server.passwordsSeen();
    assertFailed(
        failureOf(Riverside.warden("lab-box"), SignInMethods.byPassword(), wrong),
        SignInStep.SIGN_IN,
        Reason.PASSWORD_REFUSED);
    assertThat(server.passwordsSeen() - before).isEqualTo(3);
  }

  @Test
  void doesNotOfferASecondWayAfterGivingUp() throws IOException {
    TestPrompts talk = TestPrompts.accepting();
    Path locked = folder.resolve("locked");
    KeyMaker.make(KeyMaker.Kind.ED25519, "warden", "otter".toCharArray(), locked);
    append(locked);
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInMethods.byKey(locked).orPassword(), talk),
        SignInStep.SIGN_IN,
        Reason.GIVEN_UP);
    assertThat(talk.asked).containsExactly("host key " + hostKeyOf("gate"), "passphrase");
  }

  private String hostKeyOf(String server) throws IOException {
    try (Connection open = riverside.open(server)) {
      return open.hostKey().fingerprint();
    }
  }

  /** Lets a key in at the gate. */
  private void append(Path key) throws IOException {
    World world = riverside.demo.server("gate").machine().world();
    byte[] line = Files.readAllBytes(key.resolveSibling(key.getFileName() + ".pub"));
    var file =
        world.open(
            Caller.ROOT,
            "/home/warden/.ssh/authorized_keys",
            new World.Open(true, true, false, false, false, 0));
    file.write(file.size(), line, 0, line.length);
  }

  @Test
  void asksForNoPassphraseOfAKeyTheServerDoesNotWant() throws IOException {
    Path locked = folder.resolve("unwanted");
    KeyMaker.make(KeyMaker.Kind.ED25519, "stranger", "otter".toCharArray(), locked);
    TestPrompts talk = TestPrompts.accepting();
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInMethods.byKey(locked), talk),
        SignInStep.SIGN_IN,
        Reason.KEY_REFUSED);
    assertThat(talk.asked).doesNotContain("passphrase");
  }
}
