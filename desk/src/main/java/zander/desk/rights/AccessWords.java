package zander.desk.rights;

import static java.util.Objects.requireNonNull;

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
import zander.core.rights.AccessList.Decision;
import zander.core.rights.Mode;
import zander.core.rights.Rights;
import zander.core.rights.RightsStep;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;

/** Who can do what, what stops them, and what would let them, in words. */
final class AccessWords {
  private static final Words WORDS = Words.of(AccessWords.class);

  /** More names than these are only counted. */
  private static final int MOST_NAMES = 3;

  private AccessWords() {}

  /** What is asked, as the button says it. */
  static String deed(Deed deed, boolean folder) {
    return switch (deed) {
      case READ -> folder ? WORDS.say("list") : WORDS.say("read");
      case WRITE -> folder ? WORDS.say("add") : WORDS.say("write");
      case RUN -> folder ? WORDS.say("enter") : WORDS.say("run");
      case DELETE -> WORDS.say("delete");
    };
  }

  /** {@code web cannot read it.} */
  static String answer(AccessChain chain, String account, boolean folder) {
    String does =
        switch (chain.deed()) {
          case READ -> folder ? WORDS.say("listIt") : WORDS.say("readIt");
          case WRITE -> folder ? WORDS.say("addAndRemoveEntries") : WORDS.say("writeIt");
          case RUN -> folder ? WORDS.say("enterIt") : WORDS.say("runIt");
          case DELETE -> WORDS.say("deleteIt");
        };
    return switch (chain.answer()) {
      case YES -> WORDS.say("can", account, does);
      case NO -> WORDS.say("cannot", account, does);
      case UNKNOWN -> WORDS.say("whetherCanIsNot", account, does);
    };
  }

  /** What decides at a step. */
  static String step(AccessStep step, AccountNames names, String account) {
    return switch (step.cause()) {
      case RIGHTS -> byRights(step, names, account);
      case LINK -> WORDS.say("leadsTo", WireName.toText(requireNonNull(step.place().target())));
      case STICKY -> WORDS.say("stickyOnlyOwnersRemove");
      case GUARDED_LINK -> WORDS.say("aLinkOfAnothers");
      case READ_ONLY -> WORDS.say("mountedReadOnly");
      case NOEXEC -> WORDS.say("nothingIsRunOn");
      case IMMUTABLE -> WORDS.say("markedAsNotTo");
      case APPEND_ONLY -> WORDS.say("canOnlyBeAdded");
      case NOBODY_RUNS -> WORDS.say("nobodyMayRunIt");
      case MOUNT_POINT -> WORDS.say("aFileSystemIs");
      case UNSEEN -> WORDS.say("cannotBeLookedAt");
    };
  }

  private static String byRights(AccessStep step, AccountNames names, String account) {
    boolean folder = step.place().isFolder();
    String does = does(step.needs(), folder);
    Rights rights = step.place().rights();
    Decision decision = requireNonNull(step.decision(), "rights decided");
    String who =
        switch (decision.by()) {
          case ROOT -> WORDS.say("root");
          case OWNER -> WORDS.say("theOwner", names.user(rights.uid()));
          case USER_ENTRY -> WORDS.say("theEntryFor", account);
          case GROUP -> WORDS.say("theGroup", names.group(step.decision().group()));
          case GROUP_ENTRY -> WORDS.say("theEntryForGroup", names.group(step.decision().group()));
          case OTHERS -> WORDS.say("others");
        };
    if (step.answer() == Answer.UNKNOWN) {
      return WORDS.say("dependsOnGroupsThat");
    }
    boolean may = step.answer() == Answer.YES;
    return who
        + (may ? WORDS.say("may") : WORDS.say("mayNot"))
        + does
        + (step.decision().masked() ? WORDS.say("theMaskTakesIt") : "");
  }

  private static String does(int needs, boolean folder) {
    return switch (needs) {
      case 4 -> folder ? WORDS.say("list") : WORDS.say("read");
      case 2 -> WORDS.say("write");
      case 3 -> WORDS.say("addAndRemove");
      default -> folder ? WORDS.say("enter") : WORDS.say("run");
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
      words.add(WORDS.say("cannotBeChangedNot"));
    }
    if (letters.indexOf('a') >= 0) {
      words.add(WORDS.say("canOnlyBeAddedTo"));
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
    String left = (bits & mask) == bits ? "" : WORDS.say("theMaskLeaves", letters(bits & mask));
    return whose + " " + letters(bits) + left;
  }

  private static String entry(CureChange change, AccountNames names) {
    return WORDS.say(
        "addTheAccessList",
        names.user(change.entryUid()),
        letters(change.entryBits()),
        change.path().name());
  }

  private static String rights(CureChange change, AccountNames names) {
    RightsStep step = requireNonNull(change.rights(), "it is none of a list");
    Mode after = step.after().mode();
    String name = change.path().name();
    if (step.before().gid() != step.after().gid()) {
      String mode = step.changesMode() ? WORDS.say("andMode", after.octal()) : "";
      return WORDS.say("giveTheGroup", name, names.group(step.after().gid()), mode);
    }
    return WORDS.say("setTo", name, after.octal(), ModeWords.deedsOf(step));
  }

  /** Whom else a cure lets in, or keeps out. */
  static String effect(Cure.Effect effect, String account, long opened) {
    Set<String> others = new java.util.TreeSet<>(effect.gain());
    others.remove(account);
    others.remove("root");
    String gain =
        others.isEmpty()
            ? WORDS.say("opensItToAlone", account)
            : WORDS.say("opensItTo", also(account, others));
    String lose = effect.lose().isEmpty() ? "" : WORDS.say("closesItTo", people(effect.lose()));
    String more = opened == 0 ? "" : WORDS.say("inItCanBe", Texts.count(opened, "otherFile"));
    return gain + lose + more;
  }

  private static String also(String account, Set<String> others) {
    if (others.size() > MOST_NAMES) {
      return WORDS.say("and", account, people(others));
    }
    List<String> all = new ArrayList<>(List.of(account));
    all.addAll(others);
    return ModeWords.joined(all);
  }

  private static String people(Set<String> names) {
    return names.size() > MOST_NAMES
        ? Texts.count(names.size(), "otherAccount")
        : ModeWords.joined(List.copyOf(names));
  }

  /** Where a step is. */
  static String place(Place place) {
    return place.path().name();
  }
}
