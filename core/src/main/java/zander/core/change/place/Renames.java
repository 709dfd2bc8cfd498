package zander.core.change.place;

import java.io.IOException;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;

/** Renames to a name that is free, and over one that is taken. */
public final class Renames {
  private Renames() {}

  /**
   * SFTP's RENAME never replaces, but OpenSSH makes a hard link for it, which Linux refuses for
   * files of others that the account may well rename, and which takes an inode where there may be
   * none left. Then POSIX rename does it, after a look.
   */
  public static void toFree(RemoteFiles files, RemotePath from, RemotePath to) throws IOException {
    try {
      files.rename(from, to);
    } catch (RemoteFailure e) {
      boolean perhaps =
          switch (e.reason()) {
            case PERMISSION_DENIED, FAILED, NO_SPACE, NO_INODES -> true;
            default -> false;
          };
      if (!perhaps || exists(files, to) || !exists(files, from)) {
        throw e;
      }
      try {
        files.renameOver(from, to);
      } catch (RemoteFailure second) {
        throw second.reason() == Reason.NOT_SUPPORTED ? e : second;
      }
    }
  }

  /**
   * Puts a whole file in the place of another on a server that cannot rename over: the old one is
   * moved aside first, and back if the new one cannot take its place, so that at every moment one
   * of them has a name that the journal knows.
   *
   * @param aside where the old one goes; it stays there
   */
  public static void inSteps(
      RemoteFiles files, RemotePath part, RemotePath target, RemotePath aside) throws IOException {
    files.rename(target, aside);
    try {
      files.rename(part, target);
    } catch (RemoteFailure e) {
      if (e.reason() != Reason.LINE_LOST) {
        files.rename(aside, target);
      }
      throw e;
    }
  }

  public static boolean exists(RemoteFiles files, RemotePath path) throws IOException {
    try {
      files.look(path);
      return true;
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.NO_SUCH_FILE) {
        return false;
      }
      throw e;
    }
  }
}
