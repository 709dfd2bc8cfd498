package zander.desk.rights;

import java.util.ArrayList;
import java.util.List;
import zander.core.rights.Mode;
import zander.core.rights.Mode.May;
import zander.core.rights.Mode.Who;
import zander.core.rights.RightsStep;

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
    return deeds.isEmpty() ? "nothing" : joined(deeds);
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

  /** {@code a, b and c}. */
  public static String joined(List<String> words) {
    int last = words.size() - 1;
    return last == 0
        ? words.get(0)
        : String.join(", ", words.subList(0, last)) + " and " + words.get(last);
  }

  /** {@code others may read}. */
  static String deedsOf(RightsStep step) {
    return String.join(", ", deeds(step.before().mode(), step.after().mode(), step.folder()));
  }

  /** What those who are named may do now, or no longer. */
  public static List<String> deeds(Mode before, Mode after, boolean folder) {
    List<String> deeds = new ArrayList<>();
    for (Who who : Who.values()) {
      List<String> more = new ArrayList<>();
      List<String> less = new ArrayList<>();
      for (May may : May.values()) {
        boolean had = before.allows(who, may);
        if (had != after.allows(who, may)) {
          (had ? less : more).add(verb(may, folder));
        }
      }
      String name = who == Who.OWNER ? "owner" : who == Who.GROUP ? "group" : "others";
      if (!more.isEmpty()) {
        deeds.add(name + " may " + String.join(" and ", more));
      }
      if (!less.isEmpty()) {
        deeds.add(name + " may no longer " + String.join(" or ", less));
      }
    }
    if (folder && after.has(Mode.SET_GID) && !before.has(Mode.SET_GID)) {
      deeds.add("new files get its group");
    }
    return deeds;
  }

  private static String verb(May may, boolean folder) {
    return switch (may) {
      case READ -> folder ? "list" : "read";
      case WRITE -> folder ? "add and remove" : "write";
      case RUN -> folder ? "enter" : "run";
    };
  }
}
