package zander.core.connect.command;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.stream.Collectors;
import zander.core.files.WireName;
import zander.core.work.Cancellation;

/**
 * How a script of a person's ended, and what it wrote, as people read it.
 *
 * @param exit the exit status
 * @param said its output and then its errors, the first 16 KiB of each; one line for each of
 *     theirs, in which what cannot be seen is marked
 */
public record ShownOutput(int exit, String said) {
  private static final int MOST = 16 * 1024;

  /** Runs a script; see {@link Commands#stream}. */
  public static ShownOutput of(Commands commands, String wireScript, Cancellation stop)
      throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ExecResult ran =
        commands.stream(
            wireScript, part -> out.write(part, 0, Math.min(part.length, MOST - out.size())), stop);
    int errors = Math.min(ran.errors().length, MOST);
    String all =
        out.toString(StandardCharsets.ISO_8859_1)
            + "\n"
            + new String(ran.errors(), 0, errors, StandardCharsets.ISO_8859_1);
    return new ShownOutput(
        ran.exit(),
        all.lines()
            .map(line -> WireName.toText(line.replace('\t', ' ').stripTrailing()))
            .collect(Collectors.joining("\n"))
            .strip());
  }
}
