package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.apache.sshd.common.config.keys.writer.openssh.OpenSSHKeyEncryptionContext;
import org.apache.sshd.common.config.keys.writer.openssh.OpenSSHKeyPairResourceWriter;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.ConnectFailure;
import zander.core.connect.ConnectFailure.Reason;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.ServerAddress;
import zander.core.connect.SignInStep;
import zander.core.connect.SignInWays;
import zander.standin.demo.DemoKeys;

/** Every way a sign-in can go, and what is told of it. */
class SignInTest {
  @TempDir Path folder;
  private Riverside riverside;

  @BeforeEach
  void start() throws IOException {
    riverside = new Riverside(folder);
  }

  @AfterEach
  void stop() {
    riverside.close();
  }

  private ConnectFailure failureOf(ServerAddress address, SignInWays ways, Talk talk) {
    return catchThrowableOfType(
        ConnectFailure.class, () -> riverside.connector.open(address, ways, talk));
  }

  private static void assertFailed(ConnectFailure failure, SignInStep step, Reason reason) {
    assertThat(failure).isNotNull();
    assertThat(failure.reason()).as(failure.getMessage()).isEqualTo(reason);
    assertThat(failure.step()).isEqualTo(step);
  }

  @Test
  void asksForTheHostKeyOnceAndRemembersIt() throws IOException {
    Talk talk = Talk.accepting();
    SignInWays ways = SignInWays.byKey(riverside.demo.keyFile());
    try (Connection first = riverside.connector.open(Riverside.warden("gate"), ways, talk)) {
      assertThat(first.whoAmI().home().text()).isEqualTo("/home/warden");
      assertThat(first.keyType()).isEqualTo("ed25519");
      assertThat(talk.asked).containsExactly("host key " + first.hostKey().fingerprint());
    }
    assertThat(talk.steps).containsExactly(SignInStep.values());
    Talk silent = Talk.accepting();
    riverside.connector.open(Riverside.warden("gate"), ways, silent).close();
    assertThat(silent.asked).isEmpty();
    assertThat(Files.getPosixFilePermissions(riverside.knownHosts.file())).hasSize(2);
  }

  @Test
  void stopsAtAChangedHostKeyBeforeAnySecret() throws IOException {
    riverside.open("gate").close();
    var server = riverside.demo.server("gate");
    server.setHostKey(DemoKeys.pair("somebody else"));
    Talk talk = Talk.withPassword("heron-at-dusk");
    ConnectFailure failure = failureOf(Riverside.warden("gate"), SignInWays.byPassword(), talk);
    assertFailed(failure, SignInStep.HOST_KEY, Reason.HOST_KEY_CHANGED);
    assertThat(failure.known()).hasSize(1);
    assertThat(failure.shown()).isNotEqualTo(failure.known().get(0));
    assertThat(talk.asked).isEmpty();
    assertThat(server.passwordsSeen()).isZero();
  }

  @Test
  void sendsNothingWhenTheHostKeyIsDeclined() throws IOException {
    Talk talk = Talk.withPassword("heron-at-dusk");
    talk.acceptHostKey = false;
    ConnectFailure failure = failureOf(Riverside.warden("gate"), SignInWays.byPassword(), talk);
    assertFailed(failure, SignInStep.HOST_KEY, Reason.HOST_KEY_DECLINED);
    assertThat(talk.asked).hasSize(1);
    assertThat(riverside.demo.server("gate").passwordsSeen()).isZero();
    assertThat(riverside.knownHosts.file()).doesNotExist();
  }

  @Test
  void refusesARevokedHostKey() throws IOException {
    riverside.open("gate").close();
    String line = Files.readString(riverside.knownHosts.file());
    Files.writeString(
        riverside.knownHosts.file(), line + "@revoked * " + line.substring(line.indexOf(' ') + 1));
    assertFailed(
        failureOf(
            Riverside.warden("gate"), SignInWays.byKey(riverside.demo.keyFile()), Talk.accepting()),
        SignInStep.HOST_KEY,
        Reason.HOST_KEY_REVOKED);
  }

  @Test
  void tellsAWrongKeyFromAWrongPassword() throws IOException {
    Path other = folder.resolve("other");
    DemoKeys.writePrivate(DemoKeys.pair("other"), "other", other);
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInWays.byKey(other), Talk.accepting()),
        SignInStep.SIGN_IN,
        Reason.KEY_REFUSED);
    Talk wrong = Talk.withPassword("not this one");
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInWays.byPassword(), wrong),
        SignInStep.SIGN_IN,
        Reason.PASSWORD_REFUSED);
    Talk right = Talk.withPassword("heron-at-dusk");
    riverside.connector.open(Riverside.warden("gate"), SignInWays.byKey(other).orPassword(), right).close();
    assertThat(right.asked).containsExactly("password");
  }

  @Test
  void givesUpWhenThePersonDoes() {
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInWays.byPassword(), Talk.accepting()),
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
    Talk talk = Talk.accepting();
    talk.passphrase = "otter";
    riverside.connector.open(Riverside.warden("gate"), SignInWays.byKey(file), talk).close();
    assertThat(talk.asked).last().isEqualTo("passphrase");

    Talk wrong = Talk.accepting();
    wrong.passphrase = "stoat";
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInWays.byKey(file), wrong),
        SignInStep.SIGN_IN,
        Reason.WRONG_PASSPHRASE);
    assertThat(wrong.asked).hasSize(3);
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInWays.byKey(file), Talk.accepting()),
        SignInStep.SIGN_IN,
        Reason.GIVEN_UP);
  }

  @Test
  void tellsWhatIsWrongWithAKeyFile() throws IOException {
    assertFailed(
        failureOf(
            Riverside.warden("gate"), SignInWays.byKey(folder.resolve("none")), Talk.accepting()),
        SignInStep.SIGN_IN,
        Reason.KEY_FILE_MISSING);
    Path open = folder.resolve("key.pub");
    Files.writeString(open, DemoKeys.publicLine(DemoKeys.pair("warden"), "warden"));
    assertFailed(
        failureOf(Riverside.warden("gate"), SignInWays.byKey(open), Talk.accepting()),
        SignInStep.SIGN_IN,
        Reason.KEY_PUBLIC_HALF);
  }

  @Test
  void tellsHowFarItGotWithTheNetwork() throws IOException {
    SignInWays ways = SignInWays.byKey(riverside.demo.keyFile());
    assertFailed(
        failureOf(new ServerAddress("warden", "no-such.invalid", 22), ways, Talk.accepting()),
        SignInStep.NAME,
        Reason.UNKNOWN_HOST);
    int closed;
    try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      closed = free.getLocalPort();
    }
    riverside.redirectTo(closed);
    assertFailed(
        failureOf(Riverside.warden("gate"), ways, Talk.accepting()),
        SignInStep.PORT,
        Reason.REFUSED);
  }

  @Test
  void tellsAServerThatIsNotSsh() throws Exception {
    try (ServerSocket other = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
      Thread thread =
          new Thread(
              () -> {
                try (Socket socket = other.accept()) {
                  socket
                      .getOutputStream()
                      .write("HTTP/1.1 400 Bad Request\r\n\r\n".repeat(40).getBytes());
                  socket.getOutputStream().flush();
                  socket.getInputStream().read();
                } catch (IOException e) {
                  // The client has gone.
                }
              });
      thread.start();
      riverside.redirectTo(other.getLocalPort());
      ConnectFailure failure =
          failureOf(
              Riverside.warden("gate"),
              SignInWays.byKey(riverside.demo.keyFile()),
              Talk.accepting());
      assertThat(failure.step()).isEqualTo(SignInStep.GREETING);
      assertThat(failure.reason()).isIn(Reason.NOT_SSH, Reason.CLOSED_BY_SERVER);
    }
  }

  @Test
  void tellsAMissingFileService() throws IOException {
    riverside.demo.server("gate").faults().setFileService(false);
    assertFailed(
        failureOf(
            Riverside.warden("gate"), SignInWays.byKey(riverside.demo.keyFile()), Talk.accepting()),
        SignInStep.FILES,
        Reason.NO_FILE_SERVICE);
  }

  @Test
  void triesEveryAddressOfAName() throws IOException {
    int closed;
    try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      closed = free.getLocalPort();
    }
    InetAddress here = InetAddress.getLoopbackAddress();
    int port = riverside.demo.server("gate").port();
    try (Connector connector =
        new Connector(
            riverside.knownHosts,
            address ->
                List.of(new InetSocketAddress(here, closed), new InetSocketAddress(here, port)))) {
      connector
          .open(
              Riverside.warden("gate"),
              SignInWays.byKey(riverside.demo.keyFile()),
              Talk.accepting())
          .close();
    }
  }
}
