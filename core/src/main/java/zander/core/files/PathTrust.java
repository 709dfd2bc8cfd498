package zander.core.files;

import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.rights.Mode;

/**
 * Who can put something else in the place of a folder, by what its owner and mode let others do:
 * entries of a folder are made, renamed and removed by whoever may write to it, and its mode is
 * changed by its owner (POSIX.1-2017, XBD 4.4 and 4.8). In a folder with the sticky bit only by the
 * owner of the entry ({@code inode(7)}). An access control list that lets others write shows as the
 * group's bit ({@code acl(5)}).
 */
public final class PathTrust {
  private static final int OTHERS_WRITE = 022;
  private static final int STICKY = 01000;

  private PathTrust() {}

  /**
   * Whether others can put something else in the place of an entry of a folder.
   *
   * @param folder its attributes
   * @param owner of the entry; -1 for any that may come
   * @param me the number of the own account; what the root owns is safe for all
   */
  public static boolean mayTurn(RemoteAttributes folder, int owner, int me) {
    if (!isMine(folder.uid(), me)) {
      return true;
    }
    return letsOthersWrite(folder.mode())
        && ((folder.mode().bits() & STICKY) == 0 || !isMine(owner, me));
  }

  /** Whether a mode lets others than the owner write. */
  public static boolean letsOthersWrite(Mode mode) {
    return (mode.bits() & OTHERS_WRITE) != 0;
  }

  private static boolean isMine(int uid, int me) {
    return uid == 0 || uid == me;
  }

  /**
   * Whether a link may be followed that others can turn: whoever can turn it owns what it leads to,
   * or could give that the link's name, and does nothing by it that they could not do without.
   *
   * @param folder that the link is in
   * @param target what it leads to; {@code null} for nothing
   * @param beside whether that is in the same folder
   */
  public static boolean isHarmless(
      RemoteAttributes folder,
      RemoteAttributes link,
      @Nullable RemoteAttributes target,
      boolean beside) {
    if (target != null && beside && (folder.mode().bits() & STICKY) == 0) {
      return true;
    }
    if (target == null || target.uid() == 0) {
      return false;
    }
    boolean ownersAlone = !letsOthersWrite(folder.mode());
    return link.uid() == target.uid()
        || (link.uid() == 0 && ownersAlone && folder.uid() == target.uid());
  }

  /**
   * The first folder of a path whose entries others can turn.
   *
   * @param chain what is at each step, links not followed, from the root on; it ends where nothing
   *     is
   * @return its place in the chain; -1 when there is none
   */
  public static int firstOpen(List<RemoteAttributes> chain, int me) {
    for (int i = 0; i < chain.size(); i++) {
      boolean last = i == chain.size() - 1;
      if (chain.get(i).isFolder()
          && mayTurn(chain.get(i), last ? -1 : chain.get(i + 1).uid(), me)) {
        return i;
      }
    }
    return -1;
  }
}
