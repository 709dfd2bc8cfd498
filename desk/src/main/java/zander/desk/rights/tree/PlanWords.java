package zander.desk.rights.tree;

import java.util.ArrayList;
import java.util.List;
import zander.core.change.rights.PlanGroup;
import zander.core.change.rights.TreeOutcome;
import zander.core.files.AccountNames;
import zander.core.rights.Rights;
import zander.core.rights.RightsDanger;
import zander.core.rights.RightsStep;
import zander.desk.rights.ModeWords;
import zander.desk.work.FailureWords;

/** What a change of the rights of trees would do, and what became of it, in words. */
final class PlanWords {
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
              ? group.step() == null ? "other changes" : change(group.step(), names)
              : danger(group.danger(), account);
      case SAME -> "as they should be already";
      case NOT_MEANT -> "not asked about";
      case LINK -> "links, not followed";
      case OTHER_FILE_SYSTEM -> "on another file system, left alone";
      case SPECIAL -> "devices, pipes and sockets, left alone";
      case NOT_ALLOWED ->
          group.step() == null
              ? "of others: " + account + " may not"
              : notAllowed(names.user(group.step().before().uid()), account);
      case UNREADABLE -> "folders that " + account + " cannot look into";
    };
  }

  private static String notAllowed(String owner, String account) {
    return "of "
        + owner
        + (owner.equals(account)
            ? ": only root may give them that owner or group"
            : ": " + account + " may not");
  }

  private static String danger(RightsDanger danger, String account) {
    return switch (danger) {
      case OPENS_SECRET -> "what looks like a secret would become readable by everyone";
      case GAINS_SET_ID -> "programs would run as their owner or group for everyone";
      case LOCKS_OUT -> "folders would not let " + account + " work in them any more";
      case ANYONE_WRITES -> "everyone could write";
      case LOSES_RUN -> "programs would lose run permission";
      case LOSES_SET_ID -> "programs would no longer run as their owner or group";
      case ONE_WAY -> account + " could not put these back: it is not in their group";
    };
  }

  /** {@code files 0664 → 0644, group may no longer write}. */
  static String change(RightsStep step, AccountNames names) {
    List<String> words = new ArrayList<>();
    Rights before = step.before();
    Rights after = step.after();
    String kind = step.folder() ? "folders" : "files";
    if (step.changesMode()) {
      words.add(kind + " " + before.mode().octal() + ARROW + after.mode().octal());
      List<String> deeds = ModeWords.deeds(before.mode(), after.mode(), step.folder());
      if (deeds.size() <= MOST_DEEDS && !step.changesOwner()) {
        words.addAll(deeds);
      }
    }
    if (before.uid() != after.uid()) {
      words.add("owner " + names.user(before.uid()) + ARROW + names.user(after.uid()));
    }
    if (before.gid() != after.gid()) {
      words.add("group " + names.group(before.gid()) + ARROW + names.group(after.gid()));
    }
    return (step.changesMode() ? "" : kind + ": ") + String.join(", ", words);
  }

  /** Why an entry is not as wanted. */
  static String why(TreeOutcome.Left left) {
    return switch (left.why()) {
      case OTHER_THING -> "became another thing meanwhile: left alone";
      case CHANGED_SINCE -> "was changed by somebody else meanwhile: left alone";
      case GONE -> "is gone, or out of reach";
      case OUT_OF_REACH -> "cannot be looked at any more: a folder above was closed";
      case REFUSED -> FailureWords.of(left.failure()).headline();
      case NOT_COME_TO -> "not come to";
    };
  }
}
