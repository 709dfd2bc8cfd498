package zander.core.access;

import org.jspecify.annotations.Nullable;
import zander.core.rights.Mode;
import zander.core.rights.Rights;

/**
 * What new entries of a folder get that a program of an account makes (POSIX XSH, open and mkdir;
 * acl(5) where the folder has a default list, which takes the place of the umask).
 *
 * @param file of a file that is made as most programs do, asking for 0666
 * @param folder of a folder, asking for 0777
 */
public record NewEntries(Rights file, Rights folder) {
  private static final int FILE = 0666;
  private static final int FOLDER = 0777;

  /**
   * @param in the folder they are made in
   * @param list {@code null} for none
   * @param umask of the account, 0 to 0777
   * @param uid of the account
   * @param gid its first group
   */
  public static NewEntries of(Rights in, @Nullable DefaultList list, int umask, int uid, int gid) {
    boolean inherits = in.mode().has(Mode.SET_GID);
    int group = inherits ? in.gid() : gid;
    Mode file = list == null ? new Mode(FILE & ~umask) : list.modeOf(FILE);
    Mode folder = list == null ? new Mode(FOLDER & ~umask) : list.modeOf(FOLDER);
    return new NewEntries(
        new Rights(uid, group, file),
        new Rights(uid, group, folder.withBit(Mode.SET_GID, inherits)));
  }
}
