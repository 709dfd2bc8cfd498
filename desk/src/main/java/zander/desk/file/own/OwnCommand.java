package zander.desk.file.own;

import java.io.File;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;

/**
 * A program of this computer, as somebody typed it for a shell: {@code {file}} stands for the file,
 * or it comes last.
 */
final class OwnCommand {
  private static final String FILE = "{file}";

  private OwnCommand() {}

  /** What is given to {@code sh}: the name itself is never part of it. */
  static String script(String typed) {
    return typed.contains(FILE) ? typed.replace(FILE, "\"$1\"") : typed + " \"$1\"";
  }

  /** Starts it; it goes on when this program ends. Waits for the system. */
  static Process start(String typed, Path file) throws IOException {
    return new ProcessBuilder(
            List.of("/bin/sh", "-c", script(typed), "zander", file.toAbsolutePath().toString()))
        .directory(new File(System.getProperty("user.home")))
        .redirectInput(ProcessBuilder.Redirect.from(new File("/dev/null")))
        .redirectOutput(ProcessBuilder.Redirect.DISCARD)
        .redirectError(ProcessBuilder.Redirect.DISCARD)
        .start();
  }

  /** What it is called in words: {@code gedit} for {@code /usr/bin/gedit --wait}. */
  static String name(String typed) {
    String first = typed.strip().split("\\s+")[0];
    return first.substring(first.lastIndexOf('/') + 1);
  }
}
