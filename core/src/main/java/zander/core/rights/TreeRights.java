package zander.core.rights;

import java.util.OptionalInt;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import zander.core.rights.AccessList.Asker;

/**
 * What is wanted of the rights of many entries. Where the mode is left alone, a new owner has the
 * effect that {@code chown} has: a file loses its set-id bits (POSIX XSH, chown).
 *
 * @param uid the owner of all; empty to leave it
 * @param gid the group of all; empty to leave it
 * @param files what becomes of the modes of files; {@code null} to leave them
 * @param folders the same for folders
 */
public record TreeRights(
    OptionalInt uid, OptionalInt gid, @Nullable ModeRule files, @Nullable ModeRule folders)
    implements RightsWish {
  /** The number of an account that is not known; no account has it (POSIX XBD 3.428). */
  public static final int UNKNOWN = -1;

  private static final Asker ANYBODY = new Asker(UNKNOWN, Set.of());

  private static final int GROUP_RUN = 010;

  @Override
  public TreeRights of(String path, boolean folder) {
    return this;
  }

  /** Whether it asks for anything. */
  public boolean isNothing() {
    return uid.isEmpty() && gid.isEmpty() && files == null && folders == null;
  }

  /** What an entry has afterwards, done by somebody who may do it. */
  public Rights of(Rights before, boolean folder) {
    return of(before, folder, ANYBODY);
  }

  /**
   * The same, done by an account: one that is not root and not in the group of an entry cannot give
   * it the set-group-id bit (POSIX XSH, chmod), nor leave it to a file that gets another group.
   */
  public Rights of(Rights before, boolean folder, Asker by) {
    int toUid = uid.orElse(before.uid());
    int toGid = gid.orElse(before.gid());
    Mode mode = before.mode();
    if (toUid != before.uid() || toGid != before.gid()) {
      boolean leaves = folder || isIn(by, before.gid());
      mode = afterNewOwner(mode, folder);
      mode = leaves ? mode : mode.withBit(Mode.SET_GID, false);
    }
    ModeRule rule = folder ? folders : files;
    Mode after = rule == null ? mode : rule.apply(mode, folder);
    boolean loses = !after.equals(before.mode()) && !isIn(by, toGid);
    return new Rights(toUid, toGid, loses ? after.withBit(Mode.SET_GID, false) : after);
  }

  /** Whether it is in a group, or root, or not known. */
  private static boolean isIn(Asker by, int gid) {
    boolean known = by.uid() != 0 && by.uid() != UNKNOWN && !by.gids().isEmpty();
    return !known || by.gids().contains(gid);
  }

  /** What a file's mode is once it has another owner or group. */
  public static Mode afterNewOwner(Mode mode, boolean folder) {
    return folder ? mode : withoutSetId(mode);
  }

  /** Without run permission for the group, the bit once stood for a kind of lock: it is left. */
  private static Mode withoutSetId(Mode mode) {
    Mode rest = mode.withBit(Mode.SET_UID, false);
    return rest.has(GROUP_RUN) ? rest.withBit(Mode.SET_GID, false) : rest;
  }

  /** Whether an account may make this change of an entry that it can reach (POSIX XSH, chown). */
  public static boolean mayChange(Asker by, RightsStep step) {
    Rights before = step.before();
    Rights after = step.after();
    if (by.uid() == 0 || by.uid() == UNKNOWN) {
      return true;
    }
    Set<Integer> gids = by.gids();
    boolean group = after.gid() == before.gid() || gids.isEmpty() || gids.contains(after.gid());
    return before.uid() == by.uid() && after.uid() == before.uid() && group;
  }
}
