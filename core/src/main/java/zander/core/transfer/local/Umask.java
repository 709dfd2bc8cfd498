package zander.core.transfer.local;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import zander.core.rights.Mode;

/** Which bits of a new file's mode this program's file mode creation mask takes away (POSIX). */
final class Umask {
  private static final Path STATUS = Path.of("/proc/self/status");
  private static final String LINE = "Umask:";
  private static final int ALL = 0777;

  /** The owner reads it, so that its time can be set. */
  private static final int READABLE = 0400;

  private final int mask;

  private Umask(int mask) {
    this.mask = mask;
  }

  /** Linux tells it (proc(5)); where it is not told, all bits count as taken away. */
  static Umask ofThisProgram() {
    try {
      for (String line : Files.readAllLines(STATUS)) {
        if (line.startsWith(LINE)) {
          return new Umask(Integer.parseInt(line.substring(LINE.length()).strip(), 8));
        }
      }
    } catch (IOException | NumberFormatException e) {
      // Told by nobody.
    }
    return new Umask(ALL);
  }

  /**
   * What a mode of a server's comes to on this computer: a set-user-ID program that came down would
   * run as whoever brought it here.
   */
  static int plain(Mode mode) {
    return mode.bits() & ALL;
  }

  /** Whether a new file can be made with this mode, so that none has to be set afterwards. */
  boolean lets(Mode mode) {
    int bits = mode.bits();
    return (bits & mask) == 0 && (bits & ~ALL) == 0 && (bits & READABLE) != 0;
  }
}
