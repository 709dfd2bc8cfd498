package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.connect.ServerPort;
import zander.core.page.ErrorLog;
import zander.core.page.PageAnswer;
import zander.core.page.PageOrigin;
import zander.core.page.PageProxy;
import zander.core.page.PageRoutes;
import zander.core.page.PageRoutes.Way;

/** Pages of the system's own nginx, reached through the system's own sshd. */
@Timeout(120)
class PageOfServerTest {
  private static final String ACCOUNT = "zndpage" + System.getProperty("test.fork", "");
  private static final String SITE = "levels.riverwatch.example";

  @TempDir Path folder;

  @BeforeEach
  void possible() {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    Assumptions.assumeTrue(NginxOfTheTest.isPossible(), "needs nginx-light");
  }

  private final AtomicInteger lookups = new AtomicInteger();

  private PageRoutes routes(Connection connection) {
    return new PageRoutes(
        address -> {
          lookups.incrementAndGet();
          throw new UnknownHostException(address.host());
        },
        () -> connection);
  }

  private PageProxy proxy(Connection connection, PageOrigin origin, Way way) throws Exception {
    return new PageProxy(origin, routes(connection).by(way), host -> "");
  }

  @Test
  void thePageOfANameThatOnlyTheServerServesComesWithWhatItsLogSays() throws Exception {
    Path logs = Files.createDirectories(folder.resolve("logs/nginx"));
    Path www = Files.createDirectories(folder.resolve("www"));
    Files.writeString(www.resolve("index.html"), "<h1>Levels today</h1>");
    Path alerts = Files.writeString(www.resolve("alerts.html"), "<h1>Alerts</h1>");
    Files.setPosixFilePermissions(alerts, PosixFilePermissions.fromString("rw-------"));
    try (NginxOfTheTest nginx = new NginxOfTheTest(folder);
        SystemSshd sshd =
            new SystemSshd(
                folder,
                List.of(ACCOUNT),
                List.of(),
                "mount --bind " + folder.resolve("logs") + " /var/log")) {
      int port = nginx.serve(SITE, www, logs.resolve("error.log"));
      PageOrigin origin = PageOrigin.of("http://" + SITE + ":" + port);
      try (Connection connection = sshd.open(ACCOUNT);
          PageProxy proxy = proxy(connection, origin, Way.ON_SERVER)) {
        assertThat(PageAnswer.ask(URI.create(origin.text() + "/"), proxy).status()).isEqualTo(200);
        assertThat(PageAnswer.ask(URI.create(origin.text() + "/no"), proxy).status())
            .isEqualTo(404);
        URI closed = URI.create(origin.text() + "/alerts.html");
        assertThat(PageAnswer.ask(closed, proxy).status()).isEqualTo(403);
        ErrorLog.Line line = ErrorLog.of(connection.files(), "/alerts.html");
        assertThat(line.log().text()).isEqualTo("/var/log/nginx/error.log");
        assertThat(line.text()).contains("alerts.html").contains("Permission denied");
        assertThat(ErrorLog.of(connection.files(), "/alerts")).as("another page").isNull();
        assertThat(ErrorLog.of(connection.files(), "/")).as("the first page").isNull();
        Files.setPosixFilePermissions(
            logs.resolve("error.log"), PosixFilePermissions.fromString("rw-------"));
        assertThat(ErrorLog.of(connection.files(), "/alerts.html").text()).isEmpty();
        Files.setPosixFilePermissions(alerts, PosixFilePermissions.fromString("rw-r--r--"));
        assertThat(PageAnswer.ask(closed, proxy).status()).isEqualTo(200);
        PageOrigin own = PageOrigin.of("http://127.0.0.1:" + port);
        try (PageProxy either = proxy(connection, own, Way.EITHER)) {
          assertThat(lookups).hasValue(0);
          for (int i = 0; i < 3; i++) {
            assertThat(PageAnswer.ask(URI.create(own.text() + "/"), either).status())
                .isEqualTo(404);
          }
          assertThat(lookups).as("what led there once does so again").hasValue(1);
        }
        PageOrigin nobody = PageOrigin.of("http://127.0.0.1:" + closedPort());
        try (PageProxy through = proxy(connection, nobody, Way.THROUGH_SERVER)) {
          assertThat(PageAnswer.ask(URI.create(nobody.text() + "/"), through).status())
              .isEqualTo(502);
          assertThat(through.failure()).isInstanceOf(ServerPort.Refused.class);
          assertThat(((ServerPort.Refused) through.failure()).isForbidden()).isFalse();
        }
        othersOnThisComputerDoNotComeThroughIt(proxy, origin);
      }
    }
  }

  private static int closedPort() throws Exception {
    try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      return free.getLocalPort();
    }
  }

  private static void othersOnThisComputerDoNotComeThroughIt(PageProxy proxy, PageOrigin origin)
      throws Exception {
    String ask =
        "exec 3<>/dev/tcp/127.0.0.1/"
            + proxy.address().getPort()
            + "; printf 'GET "
            + origin.text()
            + "/ HTTP/1.1\\r\\nHost: x\\r\\n\\r\\n' >&3; cat <&3; true";
    assertThat(SystemSshd.run("timeout", "20", "bash", "-c", ask)).contains("Levels today");
    assertThat(
            SystemSshd.run(
                "timeout",
                "20",
                "setpriv",
                "--reuid=65534",
                "--regid=65534",
                "--clear-groups",
                "bash",
                "-c",
                ask))
        .isEmpty();
  }

  @Test
  void aServerThatForwardsNothingSaysSo() throws Exception {
    try (SystemSshd sshd =
            new SystemSshd(folder, List.of(ACCOUNT), List.of("AllowTcpForwarding no"));
        Connection connection = sshd.open(ACCOUNT)) {
      assertThatThrownBy(() -> ServerPort.connect(connection, "127.0.0.1", 80))
          .isInstanceOfSatisfying(
              ServerPort.Refused.class, refused -> assertThat(refused.isForbidden()).isTrue());
    }
  }
}
