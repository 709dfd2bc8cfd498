package zander.suite;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.connect.channel.Elevation;
import zander.core.files.RemotePath;

/**
 * The whole path by the system's own sudo: as root, and as a service account, in folders that are
 * closed to the account that signed in.
 */
class SshdSudoPathTest extends PathContract {
  private static final String OWN = "zndacting";
  private static final String SERVICE = "zndservice";
  private static final String PASSWORD = "heron-at-dusk";
  private static final AtomicInteger NUMBER = new AtomicInteger();

  @TempDir static Path folder;
  private static final SystemSudo SUDO = new SystemSudo("path");
  private static SystemSshd sshd;
  private static Connection own;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSudo.isPossible(), "needs openssh-server and sudo, and to be root");
    sshd = new SystemSshd(folder, List.of(OWN, SERVICE), List.of());
    SystemSshd.setPassword(OWN, PASSWORD);
    SUDO.rule(OWN + " ALL=(ALL) ALL");
    own = sshd.open(OWN);
  }

  @AfterAll
  static void stop() throws Exception {
    SUDO.close();
    if (sshd != null) {
      own.close();
      sshd.close();
    }
  }

  private static Connection as(String account) throws IOException {
    return own.actAs(new Elevation(account, wrong -> PASSWORD.toCharArray()), "/");
  }

  @Override
  Connection asUser() throws IOException {
    return as(SERVICE);
  }

  @Override
  Connection asRoot() throws IOException {
    return as("root");
  }

  @Override
  RemotePath freshFolder() throws IOException {
    Path fresh =
        Files.createDirectory(folder.resolve(SERVICE + "/fresh-" + NUMBER.incrementAndGet()));
    Files.setPosixFilePermissions(fresh, PosixFilePermissions.fromString("rwx------"));
    try {
      SystemSshd.run("chown", SERVICE + ":", fresh.toString());
    } catch (InterruptedException e) {
      throw new IOException(e);
    }
    return RemotePath.of(fresh.toString());
  }

  @Override
  int otherUid(Connection connection) {
    return connection.files().names().uidOf(OWN).orElseThrow();
  }
}
