package zander.suite;

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

  @Override
  public void close() throws IOException {
    Files.deleteIfExists(rules);
  }
}
