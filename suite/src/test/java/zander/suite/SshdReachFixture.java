package zander.suite;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.keys.Agent;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.signin.SignInMethods;
import zander.core.trust.KnownHosts;

/** Servers of the system's own sshd; no password is left in any file. */
abstract class SshdReachFixture {
  static final String WARDEN = "zndwarden";
  static final String PASSWORD = "heron-at-dusk-7";

  @TempDir Path folder;
  final List<AutoCloseable> open = new ArrayList<>();

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

  SystemSshd start(String name, List<String> accounts, String... config) throws Exception {
    SystemSshd sshd =
        new SystemSshd(Files.createDirectory(folder.resolve(name)), accounts, List.of(config));
    open.add(sshd);
    return sshd;
  }

  SystemSshd start(String... config) throws Exception {
    return start("one", List.of(WARDEN), config);
  }

  /** Finds names on the loopback; the agent, if any, is the test's own. */
  Connector connector(Agent agent) {
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

  static ConnectFailure failure(
      Connector connector, ServerAddress address, SignInMethods ways, TestPrompts talk) {
    return catchThrowableOfType(
        ConnectFailure.class, () -> connector.open(address, ways, talk).close());
  }
}
