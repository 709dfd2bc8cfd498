package zander.desk.rights;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import zander.core.access.AccessChain;
import zander.core.access.AccessStep;
import zander.core.access.Cure;
import zander.core.access.CureChange;
import zander.core.access.Deed;
import zander.core.access.PathFacts.Place;
import zander.core.files.AccountNames;
import zander.core.files.WireName;
import zander.core.rights.AccessList.Answer;
import zander.core.rights.Mode;
import zander.core.rights.Rights;
import zander.core.rights.RightsStep;
import zander.desk.sheet.Texts;

/** Who can do what, what stops them, and what would let them, in words. */
final class AccessWords {
  /** More names than these are only counted. */
  private static final int MOST_NAMES = 3;

  private AccessWords() {}

  /** What is asked, as the button says it. */
  static String deed(Deed deed, boolean folder) {
    return switch (deed) {
      case READ -> folder ? "list" : "read";
      case WRITE -> folder ? "add" : "write";
      case RUN -> folder ? "enter" : "run";
      case DELETE -> "delete";
    };
  }

  /** {@code web cannot read it.} */
  static String answer(AccessChain chain, String account, boolean folder) {
    String does =
        switch (chain.deed()) {
          case READ -> folder ? "list it" : "read it";
          case WRITE -> folder ? "add and remove entries" : "write it";
          case RUN -> folder ? "enter it" : "run it";
          case DELETE -> "delete it";
        };
    return switch (chain.answer()) {
      case YES -> account + " can " + does + ".";
      case NO -> account + " cannot " + does + ".";
      case UNKNOWN -> "Whether " + account + " can " + does + " is not known.";
    };
  }

  /** What decides at a step. */
  static String step(AccessStep step, AccountNames names, String account) {
    return switch (step.cause()) {
      case RIGHTS -> byRights(step, names, account);
      case LINK -> "leads to " + WireName.toText(step.place().target());
      case STICKY -> "sticky: only owners remove their entries";
      case GUARDED_LINK -> "a link of another's, not followed in such a folder";
      case READ_ONLY -> "mounted read-only";
      case NOEXEC -> "nothing is run on this file system";
      case IMMUTABLE -> "marked as not to be changed (chattr +i)";
      case APPEND_ONLY -> "can only be added to (chattr +a)";
      case NOBODY_RUNS -> "nobody may run it";
      case MOUNT_POINT -> "a file system is mounted here";
      case UNSEEN -> "cannot be looked at from here";
    };
  }

  private static String byRights(AccessStep step, AccountNames names, String account) {
    boolean folder = step.place().isFolder();
    String does = does(step.needs(), folder);
    Rights rights = step.place().rights();
    String who =
        switch (step.decision().by()) {
          case ROOT -> "root";
          case OWNER -> "owner " + names.user(rights.uid());
          case USER_ENTRY -> "the entry for " + account;
          case GROUP -> "group " + names.group(step.decision().group());
          case GROUP_ENTRY -> "the entry for group " + names.group(step.decision().group());
          case OTHERS -> "others";
        };
    if (step.answer() == Answer.UNKNOWN) {
      return "depends on groups that are not known";
    }
    boolean may = step.answer() == Answer.YES;
    return who
        + (may ? " may " : " may not ")
        + does
        + (step.decision().masked() ? ": the mask takes it" : "");
  }

  private static String does(int needs, boolean folder) {
    return switch (needs) {
      case 4 -> folder ? "list" : "read";
      case 2 -> "write";
      case 3 -> "add and remove";
      default -> folder ? "enter" : "run";
    };
  }

  /** What a cure does. */
  static String cure(Cure cure, AccountNames names) {
    List<String> words = new ArrayList<>();
    for (CureChange change : cure.changes()) {
      words.add(change.isEntry() ? entry(change, names) : rights(change, names));
    }
    String all = String.join("; ", words);
    return all.substring(0, 1).toUpperCase(java.util.Locale.ROOT) + all.substring(1) + ".";
  }

  /** What flags forbid; empty for those that forbid nothing. */
  static String flags(String letters) {
    List<String> words = new ArrayList<>();
    if (letters.indexOf('i') >= 0) {
      words.add("cannot be changed, not even by root (immutable)");
    }
    if (letters.indexOf('a') >= 0) {
      words.add("can only be added to (append only)");
    }
    return String.join(", ", words);
  }

  /** {@code rw-}. */
  static String letters(int bits) {
    return ((bits & 4) != 0 ? "r" : "-")
        + ((bits & 2) != 0 ? "w" : "-")
        + ((bits & 1) != 0 ? "x" : "-");
  }

  /** What an entry of a list allows, with what the mask leaves of it. */
  static String entry(String whose, int bits, int mask) {
    String left = (bits & mask) == bits ? "" : ", the mask leaves " + letters(bits & mask);
    return whose + " " + letters(bits) + left;
  }

  private static String entry(CureChange change, AccountNames names) {
    return "add the access list entry u:"
        + names.user(change.entryUid())
        + ":"
        + letters(change.entryBits())
        + " to "
        + change.path().name();
  }

  private static String rights(CureChange change, AccountNames names) {
    RightsStep step = change.rights();
    Mode after = step.after().mode();
    String name = change.path().name();
    if (step.before().gid() != step.after().gid()) {
      String mode = step.changesMode() ? " and mode " + after.octal() : "";
      return "give " + name + " the group " + names.group(step.after().gid()) + mode;
    }
    return "set " + name + " to " + after.octal() + ", " + ModeWords.deedsOf(step);
  }

  /** Whom else a cure lets in, or keeps out. */
  static String effect(Cure.Effect effect, String account, long opened) {
    Set<String> others = new java.util.TreeSet<>(effect.gain());
    others.remove(account);
    others.remove("root");
    String gain =
        others.isEmpty()
            ? "Opens it to " + account + " alone."
            : "Opens it to " + also(account, others) + ".";
    String lose = effect.lose().isEmpty() ? "" : " Closes it to " + people(effect.lose()) + ".";
    String more =
        opened == 0
            ? ""
            : " " + Texts.count(opened, "other file", "other files") + " in it can be read then.";
    return gain + lose + more;
  }

  private static String also(String account, Set<String> others) {
    if (others.size() > MOST_NAMES) {
      return account + " and " + people(others);
    }
    List<String> all = new ArrayList<>(List.of(account));
    all.addAll(others);
    return ModeWords.joined(all);
  }

  private static String people(Set<String> names) {
    return names.size() > MOST_NAMES
        ? Texts.count(names.size(), "other account", "other accounts")
        : ModeWords.joined(List.copyOf(names));
  }

  /** Where a step is. */
  static String place(Place place) {
    return place.path().name();
  }
}
