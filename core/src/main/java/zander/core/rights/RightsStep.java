package zander.core.rights;

import org.jspecify.annotations.Nullable;

/**
 * One entry's change of rights.
 *
 * @param folder whether the entry is one; a file otherwise
 */
public record RightsStep(boolean folder, Rights before, Rights after) {
  private static final int OWNER = 0700;

  public boolean changesOwner() {
    return before.uid() != after.uid() || before.gid() != after.gid();
  }

  public boolean changesMode() {
    return !before.mode().equals(after.mode());
  }

  /** The same with the parts that stay left out, as 0. */
  public RightsStep changed() {
    boolean uid = before.uid() != after.uid();
    boolean gid = before.gid() != after.gid();
    return new RightsStep(folder, changed(before, uid, gid), changed(after, uid, gid));
  }

  private Rights changed(Rights all, boolean uid, boolean gid) {
    return new Rights(
        uid ? all.uid() : 0, gid ? all.gid() : 0, changesMode() ? all.mode() : new Mode(0));
  }

  /**
   * What a folder gets first, so that its owner can go in while what is in it is changed; {@code
   * null} where that is nothing.
   */
  public @Nullable RightsStep opening() {
    // Who is not in the group loses that bit with any change.
    boolean keeps = after.mode().has(Mode.SET_GID) && after.gid() == before.gid();
    int kept = keeps ? before.mode().bits() : before.mode().bits() & ~Mode.SET_GID;
    int opened = kept | (after.mode().bits() & OWNER);
    boolean opens = folder && (opened & OWNER) != (before.mode().bits() & OWNER);
    return opens
        ? new RightsStep(true, before, new Rights(before.uid(), before.gid(), new Mode(opened)))
        : null;
  }

  /** The way back. */
  public RightsStep reversed() {
    return new RightsStep(folder, after, before);
  }
}
