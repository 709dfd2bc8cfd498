package zander.core.rights;

import org.jspecify.annotations.Nullable;
import zander.core.rights.AccessList.Answer;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.Mode.May;
import zander.core.rights.Mode.Who;

/** What a change of rights may break or open; the worst first. */
public enum RightsDanger {
  /** What looks like a secret can be read by everyone. */
  OPENS_SECRET,
  /** A program runs as its owner or group that did not. */
  GAINS_SET_ID,
  /** The account that makes the change can no longer look into a folder, or write there. */
  LOCKS_OUT,
  /** Everyone can write. */
  ANYONE_WRITES,
  /** A program cannot be run any more. */
  LOSES_RUN,
  /** A program no longer runs as its owner or group. */
  LOSES_SET_ID,
  /** The account cannot put it back: it is not in the group that the entry has now. */
  ONE_WAY;

  private static final int RUN = 0111;
  private static final int GROUP_RUN = 010;
  private static final int READ_AND_ENTER = 5;
  private static final int WRITE_AND_ENTER = 3;

  /**
   * The worst danger of one change; {@code null} for none.
   *
   * @param path where the entry is, in wire form
   * @param by who makes it
   */
  public static @Nullable RightsDanger of(String path, RightsStep step, Asker by) {
    for (RightsDanger danger : values()) {
      if (danger.isIn(path, step, by)) {
        return danger;
      }
    }
    return null;
  }

  /** Whether this one is in a change; the same arguments. */
  public boolean isIn(String path, RightsStep step, Asker by) {
    Mode before = step.before().mode();
    Mode after = step.after().mode();
    return switch (this) {
      case OPENS_SECRET ->
          !step.folder() && gains(before, after, May.READ) && SecretNames.isSecret(path);
      case GAINS_SET_ID -> !step.folder() && isSetId(after) && !isSetId(before);
      case LOCKS_OUT ->
          step.folder() && (loses(step, by, READ_AND_ENTER) || loses(step, by, WRITE_AND_ENTER));
      case ANYONE_WRITES ->
          anyoneWrites(after, step.folder()) && !anyoneWrites(before, step.folder());
      case LOSES_RUN -> !step.folder() && before.has(RUN) && !after.has(RUN);
      case LOSES_SET_ID -> !step.folder() && isSetId(before) && !isSetId(after);
      case ONE_WAY ->
          !TreeRights.mayChange(by, step.reversed()) || !mayGiveSetGid(by, step.before());
    };
  }

  /** Whether it opens what was closed; the others only break something. */
  public boolean isGrave() {
    return compareTo(ANYONE_WRITES) <= 0;
  }

  private static boolean mayGiveSetGid(Asker by, Rights rights) {
    return !rights.mode().has(Mode.SET_GID)
        || by.uid() == 0
        || by.gids().isEmpty()
        || by.gids().contains(rights.gid());
  }

  private static boolean gains(Mode before, Mode after, May may) {
    return after.allows(Who.OTHERS, may) && !before.allows(Who.OTHERS, may);
  }

  private static boolean isSetId(Mode mode) {
    return mode.has(Mode.SET_UID) || (mode.has(Mode.SET_GID) && mode.has(GROUP_RUN));
  }

  private static boolean anyoneWrites(Mode mode, boolean folder) {
    return mode.allows(Who.OTHERS, May.WRITE) && !(folder && mode.has(Mode.STICKY));
  }

  private static boolean loses(RightsStep step, Asker by, int want) {
    return by.uid() != TreeRights.UNKNOWN
        && AccessList.may(by, step.before(), null, want) == Answer.YES
        && AccessList.may(by, step.after(), null, want) == Answer.NO;
  }
}
