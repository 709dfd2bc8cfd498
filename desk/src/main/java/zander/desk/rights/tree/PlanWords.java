package zander.desk.rights.tree;

import static java.util.Objects.requireNonNull;

import java.util.ArrayList;
import java.util.List;
import zander.core.change.rights.PlanGroup;
import zander.core.change.rights.TreeOutcome;
import zander.core.files.AccountNames;
import zander.core.rights.Rights;
import zander.core.rights.RightsDanger;
import zander.core.rights.RightsStep;
import zander.desk.rights.ModeWords;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;

/** What a change of the rights of trees would do, and what became of it, in words. */
final class PlanWords {
  private static final Words WORDS = Words.of(PlanWords.class);

  private static final int MOST_DEEDS = 2;
  private static final String ARROW = " → ";

  private PlanWords() {}

  /**
   * What becomes of the entries of a group.
   *
   * @param account who makes the change
   */
  static String of(PlanGroup group, AccountNames names, String account) {
    return switch (group.fate()) {
      case CHANGED ->
          group.danger() == null
              ? group.step() == null ? WORDS.say("otherChanges") : change(group.step(), names)
              : danger(group.danger(), account);
      case SAME -> WORDS.say("asTheyShouldBe");
      case NOT_MEANT -> WORDS.say("notAskedAbout");
      case LINK -> WORDS.say("linksNotFollowed");
      case OTHER_FILE_SYSTEM -> WORDS.say("onAnotherFileSystem");
      case SPECIAL -> WORDS.say("devicesPipesAndSockets");
      case NOT_ALLOWED ->
          group.step() == null
              ? WORDS.say("ofOthersMayNot", account)
              : notAllowed(names.user(group.step().before().uid()), account);
      case UNREADABLE -> WORDS.say("foldersThatCannotLook", account);
    };
  }

  private static String notAllowed(String owner, String account) {
    return WORDS.say(
        "of",
        owner,
        owner.equals(account) ? WORDS.say("onlyRootMayGive") : WORDS.say("mayNot", account));
  }

  private static String danger(RightsDanger danger, String account) {
    return switch (danger) {
      case OPENS_SECRET -> WORDS.say("whatLooksLikeA");
      case GAINS_SET_ID -> WORDS.say("programsWouldRunAs");
      case LOCKS_OUT -> WORDS.say("foldersWouldNotLet", account);
      case ANYONE_WRITES -> WORDS.say("everyoneCouldWrite");
      case LOSES_RUN -> WORDS.say("programsWouldLoseRun");
      case LOSES_SET_ID -> WORDS.say("programsWouldNoLonger");
      case ONE_WAY -> WORDS.say("couldNotPutThese", account);
    };
  }

  /** {@code files 0664 → 0644, group may no longer write}. */
  static String change(RightsStep step, AccountNames names) {
    List<String> words = new ArrayList<>();
    Rights before = step.before();
    Rights after = step.after();
    String kind = step.folder() ? WORDS.say("folders") : WORDS.say("files");
    if (step.changesMode()) {
      words.add(kind + " " + before.mode().octal() + ARROW + after.mode().octal());
      List<String> deeds = ModeWords.deeds(before.mode(), after.mode(), step.folder());
      if (deeds.size() <= MOST_DEEDS && !step.changesOwner()) {
        words.addAll(deeds);
      }
    }
    if (before.uid() != after.uid()) {
      words.add(
          WORDS.say("ownerBecomes", names.user(before.uid()), ARROW, names.user(after.uid())));
    }
    if (before.gid() != after.gid()) {
      words.add(
          WORDS.say("groupBecomes", names.group(before.gid()), ARROW, names.group(after.gid())));
    }
    return (step.changesMode() ? "" : kind + ": ") + String.join(", ", words);
  }

  /** Why an entry is not as wanted. */
  static String why(TreeOutcome.Left left) {
    return switch (left.why()) {
      case OTHER_THING -> WORDS.say("becameAnotherThing");
      case CHANGED_SINCE -> WORDS.say("wasChangedBySomebody");
      case GONE -> WORDS.say("isGoneOrOut");
      case OUT_OF_REACH -> WORDS.say("cannotBeLookedAt");
      case REFUSED -> FailureWords.of(requireNonNull(left.failure())).headline();
      case NOT_COME_TO -> WORDS.say("notComeTo");
    };
  }
}
