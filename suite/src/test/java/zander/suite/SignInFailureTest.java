package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.time.Duration;
import java.util.List;
import org.junit.jupiter.api.Test;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.connect.report.SignInStep;
import zander.core.connect.signin.SignInMethods;
import zander.desk.work.FailureWords;
import zander.standin.server.Relay;

/** What is told of servers that cannot be reached, or do not speak as they should. */
class SignInFailureTest extends SignInFixture {
  @Test
  void tellsHowFarItGotWithTheNetwork() throws IOException {
    SignInMethods ways = SignInMethods.byKey(riverside.demo.keyFile());
    assertFailed(
        failureOf(
            new ServerAddress("warden", "no-such.invalid", 22), ways, TestPrompts.accepting()),
        SignInStep.NAME,
        Reason.UNKNOWN_HOST);
    int closed;
    try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      closed = free.getLocalPort();
    }
    riverside.redirectTo(closed);
    assertFailed(
        failureOf(Riverside.warden("gate"), ways, TestPrompts.accepting()),
        SignInStep.PORT,
        Reason.REFUSED);
  }

  @Test
  void tellsAServerThatIsNotSsh() throws Exception {
    ConnectFailure failure =
        failureFromAServerThatSays("HTTP/1.1 400 Bad Request\r\n\r\n".repeat(40));
    assertThat(failure.step()).isEqualTo(SignInStep.GREETING);
    assertThat(failure.reason()).isIn(Reason.NOT_SSH, Reason.CLOSED_BY_SERVER);
  }

  private ConnectFailure failureFromAServerThatSays(String words) throws Exception {
    try (ServerSocket other = new ServerSocket(0, 5, InetAddress.getLoopbackAddress())) {
      Thread thread =
          new Thread(
              () -> {
                try (Socket socket = other.accept()) {
                  socket.getOutputStream().write(words.getBytes(UTF_8));
                  // Ends its side, and reads ours to the end: closing at once would cut the line.
                  socket.shutdownOutput();
                  socket.getInputStream().transferTo(OutputStream.nullOutputStream());
                } catch (IOException e) {
                  // The client has gone.
                }
              });
      thread.start();
      riverside.redirectTo(other.getLocalPort());
      return failureOf(
          Riverside.warden("gate"),
          SignInMethods.byKey(riverside.demo.keyFile()),
          TestPrompts.accepting());
    }
  }

  @Test
  void tellsAMissingFileService() throws IOException {
    riverside.demo.server("gate").faults().setFileService(false);
    ConnectFailure failure =
        failureOf(
            Riverside.warden("gate"),
            SignInMethods.byKey(riverside.demo.keyFile()),
            TestPrompts.accepting());
    assertFailed(failure, SignInStep.FILES, Reason.NO_FILE_SERVICE);
    assertThat(FailureWords.of(failure).detail()).doesNotContain("[").doesNotContain("SignIn");
  }

  @Test
  void tellsAServerThatClosesAfterTheSignIn() throws IOException {
    riverside.demo.server("gate").faults().setCloseAfterSignIn(true);
    ConnectFailure failure =
        failureOf(
            Riverside.warden("gate"),
            SignInMethods.byKey(riverside.demo.keyFile()),
            TestPrompts.accepting());
    assertThat(failure.reason()).as(failure.toString()).isEqualTo(Reason.CLOSED_BY_SERVER);
  }

  @Test
  void tellsAGreetingThatDoesNotEnd() throws Exception {
    assertFailed(
        failureFromAServerThatSays("welcome to the river\r\n".repeat(50_000)),
        SignInStep.GREETING,
        Reason.NOT_SSH);
  }

  /** Pulls the cable after every so many bytes of a sign-in: each time it is told, in time. */
  @Test
  void givesUpAServerThatHangsAtAnyStep() throws IOException {
    int port = riverside.demo.server("gate").port();
    try (Relay relay = new Relay(port);
        Connector connector =
            new Connector(
                riverside.knownHosts,
                address ->
                    List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), relay.port())),
                null,
                Duration.ofMillis(400))) {
      SignInMethods ways = SignInMethods.byKey(riverside.demo.keyFile());
      connector.open(Riverside.warden("gate"), ways, TestPrompts.accepting()).close();
      long whole = relay.carried();
      java.util.Set<SignInStep> seen = new java.util.TreeSet<>();
      for (long at = 0; at < whole * 97 / 100; at += whole / 24) {
        relay.heal();
        relay.stallAfter(at);
        try {
          connector.open(Riverside.warden("gate"), ways, TestPrompts.accepting()).close();
        } catch (ConnectFailure e) {
          assertThat(e.reason()).as("after %d bytes: %s", at, e).isEqualTo(Reason.TIMED_OUT);
          seen.add(e.step());
        }
      }
      assertThat(seen).contains(SignInStep.GREETING, SignInStep.SIGN_IN, SignInStep.FILES);
    }
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
                List.of(new InetSocketAddress(here, closed), new InetSocketAddress(here, port)),
            null,
            Duration.ofSeconds(20))) {
      connector
          .open(
              Riverside.warden("gate"),
              SignInMethods.byKey(riverside.demo.keyFile()),
              TestPrompts.accepting())
          .close();
    }
  }
}
