package zander.core.change.save;

import java.io.IOException;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ShellWords;
import zander.core.connect.command.ShownOutput;
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

  public boolean isNone() {
    return command.isEmpty();
  }

  /** Whether a command looks at one file, and not at all that belongs together. */
  public static boolean isOfFile(String command) {
    return command.contains(FILE);
  }

  /**
   * Runs it; waits.
   *
   * @param staged where the content lies: in another place than it will be, or there already
   * @param target what the file will be called, and is called in what the command says
   * @throws CheckRefused when it ends with another status than 0
   */
  void run(Commands commands, RemotePath staged, RemotePath target) throws IOException {
    if (isNone()) {
      return;
    }
    String script =
        WireName.fromText(command).replace(FILE, ShellWords.quote(staged)) + " < /dev/null\n";
    ShownOutput ran = ShownOutput.of(commands, script, stop);
    if (ran.exit() != 0) {
      String told = ran.said().replace(staged.text(), target.text());
      throw new CheckRefused(command, ran.exit(), told, target.name());
    }
  }
}
