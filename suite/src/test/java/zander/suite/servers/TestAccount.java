package zander.suite.servers;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import zander.suite.SystemSshd;

/** An account of this machine for one test, let in by one key; its home goes with the test. */
public record TestAccount(String name, Path home) {
  /**
   * Makes it anew.
   *
   * @param shell its login shell
   * @param publicKey the file whose key lets it in
   */
  public static TestAccount make(String name, Path home, String shell, Path publicKey)
      throws IOException, InterruptedException {
    TestAccount account = new TestAccount(name, home);
    account.remove();
    // '*' is no password at all; the '!' of a locked account would be refused.
    SystemSshd.run("useradd", "-M", "-d", home.toString(), "-p", "*", "-s", shell, name);
    Path ssh = Files.createDirectories(home.resolve(".ssh"));
    Files.copy(publicKey, ssh.resolve("authorized_keys"));
    Files.setPosixFilePermissions(home, PosixFilePermissions.fromString("rwxr-xr-x"));
    Files.setPosixFilePermissions(ssh, PosixFilePermissions.fromString("rwx------"));
    Files.setPosixFilePermissions(
        ssh.resolve("authorized_keys"), PosixFilePermissions.fromString("rw-------"));
    SystemSshd.run("chown", "-R", name + ":", home.toString());
    return account;
  }

  /** Tries until its last processes have ended; an account that is not there is fine. */
  public void remove() throws IOException, InterruptedException {
    SystemSshd.removeAccount(name);
  }
}
