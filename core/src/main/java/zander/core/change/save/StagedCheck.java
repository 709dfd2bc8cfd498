package zander.core.change.save;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.work.Cancellation;

/**
 * A command of the server that looks at new content before it counts: it is run on the complete new
 * file, while the old one is still in its place, and a status other than 0 stops the save.
 *
 * @param command for {@code sh}; {@link #FILE} in it stands for the file. Empty for none
 * @param stop ends the command and with it the save
 */
public record StagedCheck(String command, Cancellation stop) {
  public static final String FILE = "{file}";

  /** No check. */
  public static final StagedCheck NONE = new StagedCheck("", new Cancellation());

  private static final int MOST_OUTPUT = 16 * 1024;

  public boolean isNone() {
    return command.isEmpty();
  }

  /**
   * Runs it; waits.
   *
   * @param target what the file will be called, and is called in what the command says
   * @throws CheckRefused when it ends with another status than 0
   */
  void run(Commands commands, RemotePath staged, RemotePath target) throws IOException {
    if (isNone()) {
      return;
    }
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    String script =
        WireName.fromText(command).replace(FILE, ShellWords.quote(staged)) + " < /dev/null\n";
    ExecResult ran = commands.stream(script, part -> keep(out, part), stop);
    if (ran.exit() != 0) {
      String said = WireName.toText(out.toString(java.nio.charset.StandardCharsets.ISO_8859_1));
      String all = (said + "\n" + ran.errorText()).strip();
      throw new CheckRefused(command, ran.exit(), all.replace(staged.text(), target.text()));
    }
  }

  private static void keep(ByteArrayOutputStream out, byte[] part) {
    out.write(part, 0, Math.min(part.length, MOST_OUTPUT - out.size()));
  }
}
