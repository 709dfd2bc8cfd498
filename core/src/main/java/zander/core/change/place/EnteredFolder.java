package zander.core.change.place;

import java.io.IOException;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;

/**
 * How a script works in a folder: it goes into it once and uses names without a path from then on.
 * Where another account can turn the path, it first makes sure that it is where it was meant to be.
 */
public final class EnteredFolder {
  /** What a script ends with that is somewhere else. */
  private static final int ELSEWHERE = 97;

  private EnteredFolder() {}

  /** The beginning of a script that works in a folder. */
  public static String enter(RemoteFiles files, RemotePath folder) throws IOException {
    RemotePath inside = folder.child("x");
    if (!files.othersMayTurn(inside)) {
      return "cd " + ShellWords.quote(folder) + " || exit; ";
    }
    return ShellWords.enter(files.trueFolder(folder), ELSEWHERE);
  }

  /** The name of an entry of the folder that the script is in; never an option. */
  public static String name(RemotePath entry) {
    return ShellWords.quoteWire("./" + entry.wireName());
  }

  /**
   * @throws RemoteFailure with {@code LEADS_ELSEWHERE} when the script ended for that
   */
  public static void check(ExecResult result, FileStep step, RemotePath folder)
      throws RemoteFailure {
    if (result.exit() == ELSEWHERE) {
      throw new RemoteFailure(
          Reason.LEADS_ELSEWHERE, step, folder, FilePhrase.ANOTHER_FOLDER_THERE.of(), null);
    }
  }
}
