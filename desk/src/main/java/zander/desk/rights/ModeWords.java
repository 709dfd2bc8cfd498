package zander.desk.rights;

import java.util.ArrayList;
import java.util.List;
import zander.core.rights.Mode;
import zander.core.rights.Mode.May;
import zander.core.rights.Mode.Who;

/** What a mode lets whom do, in a sentence. */
public final class ModeWords {
  private ModeWords() {}

  /**
   * {@code Owner reads and writes, group reads, others nothing.}
   *
   * @param folder whether it is a folder's: it is listed and entered, not read and run
   */
  public static String sentence(Mode mode, boolean folder) {
    StringBuilder words = new StringBuilder("Owner ").append(does(mode, Who.OWNER, folder));
    String group = does(mode, Who.GROUP, folder);
    String others = does(mode, Who.OTHERS, folder);
    if (group.equals(others)) {
      words.append(", everyone else ").append(group).append('.');
    } else {
      words.append(", group ").append(group).append(", others ").append(others).append('.');
    }
    return words + special(mode, folder);
  }

  private static String does(Mode mode, Who who, boolean folder) {
    boolean read = mode.allows(who, May.READ);
    boolean write = mode.allows(who, May.WRITE);
    boolean run = mode.allows(who, May.RUN);
    List<String> deeds = new ArrayList<>();
    if (folder && !run) {
      // Without entering, names are all there is to be had (POSIX XBD 4.5).
      return read ? "only sees names" : "nothing";
    }
    if (read) {
      deeds.add(folder ? "lists" : "reads");
    }
    if (write) {
      deeds.add(folder ? "adds and removes" : "writes");
    }
    if (run) {
      deeds.add(folder ? "enters" : "runs");
    }
    return deeds.isEmpty() ? "nothing" : PlanWords.joined(deeds);
  }

  private static String special(Mode mode, boolean folder) {
    StringBuilder words = new StringBuilder();
    if (mode.has(Mode.SET_UID) && !folder) {
      words.append(" Runs as its owner.");
    }
    if (mode.has(Mode.SET_GID)) {
      words.append(folder ? " New files get its group." : " Runs as its group.");
    }
    if (mode.has(Mode.STICKY) && folder) {
      words.append(" Only owners remove their files.");
    }
    return words.toString();
  }
}
