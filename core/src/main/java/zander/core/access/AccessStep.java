package zander.core.access;

import org.jspecify.annotations.Nullable;
import zander.core.rights.AccessList.Answer;
import zander.core.rights.AccessList.Decision;

/**
 * One link of the chain that lets somebody do something, or not.
 *
 * @param place where
 * @param needs the bits that are needed there
 * @param cause what decides
 * @param decision by which rights; {@code null} unless these decide
 */
public record AccessStep(
    PathFacts.Place place, int needs, Answer answer, Cause cause, @Nullable Decision decision) {

  /** What decides at a step. */
  public enum Cause {
    RIGHTS,
    /** A link, which is followed. */
    LINK,
    /** Whoever is not the owner of the entry or the folder may not remove it (inode(7)). */
    STICKY,
    /** Nobody but its owner follows a link in a folder such as {@code /tmp}. */
    GUARDED_LINK,
    READ_ONLY,
    NOEXEC,
    IMMUTABLE,
    APPEND_ONLY,
    /** Root runs only what somebody may run. */
    NOBODY_RUNS,
    /** It is on the way of a file system that is mounted there. */
    MOUNT_POINT,
    /** This account cannot look there. */
    UNSEEN
  }
}
