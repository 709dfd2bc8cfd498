package zander.desk.rights;

import java.util.ArrayList;
import java.util.List;
import zander.core.rights.Mode;
import zander.core.rights.Mode.May;
import zander.core.rights.Mode.Who;
import zander.core.rights.RightsStep;
import zander.desk.words.Words;

/** What a mode lets whom do, in a sentence. */
public final class ModeWords {
  private static final Words WORDS = Words.of(ModeWords.class);

  private ModeWords() {}

  /**
   * {@code Owner reads and writes, group reads, others read.}
   *
   * @param folder whether it is a folder's: it is listed and entered, not read and run
   */
  public static String sentence(Mode mode, boolean folder) {
    StringBuilder words =
        new StringBuilder(WORDS.say("ownerDoes")).append(does(mode, Who.OWNER, folder, false));
    String group = does(mode, Who.GROUP, folder, false);
    if (group.equals(does(mode, Who.OTHERS, folder, false))) {
      words.append(WORDS.say("everyoneElse")).append(group).append('.');
    } else {
      words
          .append(WORDS.say("groupDoes"))
          .append(group)
          .append(WORDS.say("othersDo"))
          .append(does(mode, Who.OTHERS, folder, true))
          .append('.');
    }
    return words + special(mode, folder);
  }

  private static String does(Mode mode, Who who, boolean folder, boolean many) {
    boolean read = mode.allows(who, May.READ);
    boolean run = mode.allows(who, May.RUN);
    List<String> deeds = new ArrayList<>();
    if (folder && !run) {
      // Without entering, names are all there is to be had (POSIX XBD 4.5).
      return read
          ? many ? WORDS.say("onlySeeNames") : WORDS.say("onlySeesNames")
          : WORDS.say("nothing");
    }
    for (May may : May.values()) {
      if (mode.allows(who, may)) {
        deeds.add(many ? verb(may, folder) : verbOfOne(may, folder));
      }
    }
    return deeds.isEmpty() ? WORDS.say("nothing") : joined(deeds);
  }

  private static String verbOfOne(May may, boolean folder) {
    return switch (may) {
      case READ -> folder ? WORDS.say("lists") : WORDS.say("reads");
      case WRITE -> folder ? WORDS.say("addsAndRemoves") : WORDS.say("writes");
      case RUN -> folder ? WORDS.say("enters") : WORDS.say("runs");
    };
  }

  private static String special(Mode mode, boolean folder) {
    StringBuilder words = new StringBuilder();
    if (mode.has(Mode.SET_UID) && !folder) {
      words.append(WORDS.say("runsAsItsOwner"));
    }
    if (mode.has(Mode.SET_GID)) {
      words.append(folder ? WORDS.say("newFilesGetIts") : WORDS.say("runsAsItsGroup"));
    }
    if (mode.has(Mode.STICKY) && folder) {
      words.append(WORDS.say("onlyOwnersRemoveTheir"));
    }
    return words.toString();
  }

  /** {@code a, b and c}. */
  public static String joined(List<String> words) {
    int last = words.size() - 1;
    return last == 0
        ? words.get(0)
        : WORDS.say("and", String.join(", ", words.subList(0, last)), words.get(last));
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
      String name =
          who == Who.OWNER
              ? WORDS.say("theOwner")
              : who == Who.GROUP ? WORDS.say("theGroup") : WORDS.say("theOthers");
      if (!more.isEmpty()) {
        deeds.add(WORDS.say("may", name, String.join(WORDS.say("lastOfAll"), more)));
      }
      if (!less.isEmpty()) {
        deeds.add(WORDS.say("mayNoLonger", name, String.join(WORDS.say("orLast"), less)));
      }
    }
    if (folder && after.has(Mode.SET_GID) && !before.has(Mode.SET_GID)) {
      deeds.add(WORDS.say("newFilesGetItsGroup"));
    }
    return deeds;
  }

  private static String verb(May may, boolean folder) {
    return switch (may) {
      case READ -> folder ? WORDS.say("list") : WORDS.say("read");
      case WRITE -> folder ? WORDS.say("addAndRemove") : WORDS.say("write");
      case RUN -> folder ? WORDS.say("enter") : WORDS.say("run");
    };
  }
}
