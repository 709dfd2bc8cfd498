package zander.suite;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;

/** The rules of the system's own {@code sudo} for one test class, taken away after it. */
public final class SystemSudo implements AutoCloseable {
  private final Path rules;

  /**
   * @param name of the rules' file, which no other class that runs at the same time has
   */
  public SystemSudo(String name) {
    rules = Path.of("/etc/sudoers.d/zander-" + name);
  }

  public static boolean isPossible() {
    return SystemSshd.isPossible() && Files.isExecutable(Path.of("/usr/bin/sudo"));
  }

  /** Puts these lines in the place of those before; whole, because others read them meanwhile. */
  public void rule(String... lines) throws IOException {
    Path made = Files.createTempFile("rules", "");
    Files.writeString(made, String.join("\n", lines) + "\n");
    Files.setPosixFilePermissions(made, PosixFilePermissions.fromString("r--r-----"));
    // sudo leaves files with a dot in their name alone (sudoers manual, "Including other files").
    Path beside = rules.resolveSibling(rules.getFileName() + ".new");
    Files.copy(
        made, beside, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.COPY_ATTRIBUTES);
    Files.delete(made);
    Files.move(beside, rules, StandardCopyOption.ATOMIC_MOVE);
  }

  /** Gives an account a password, by the system's own tool. */
  public static void password(String account, String password) throws Exception {
    Process change = new ProcessBuilder("chpasswd").redirectErrorStream(true).start();
    try (var in = change.outputWriter(UTF_8)) {
      in.write(account + ":" + password + "\n");
    }
    if (change.waitFor() != 0) {
      throw new IOException(new String(change.getInputStream().readAllBytes(), UTF_8));
    }
  }

  @Override
  public void close() throws IOException {
    Files.deleteIfExists(rules);
  }
}
