package zander.core.listing;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import zander.core.files.AccountNames;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;

/**
 * What an account of the server, such as the one its web server runs as, may read in a folder: by
 * the owner, group and mode of each folder on the way and of the file itself (POSIX XBD 4.5).
 * Access lists are not seen, SFTP does not tell them.
 */
public final class ServiceAccess {
  private static final int READ = 4;
  private static final int SEARCH = 1;

  private final String account;
  private final int uid;
  private final Set<Integer> gids;
  private final RemotePath stoppedAt;

  private ServiceAccess(String account, int uid, Set<Integer> gids, RemotePath stoppedAt) {
    this.account = account;
    this.uid = uid;
    this.gids = gids;
    this.stoppedAt = stoppedAt;
  }

  /**
   * Looks at a folder and all above it, all asked at once.
   *
   * @return {@code null} when the server does not tell who the account is
   */
  public static ServiceAccess of(String account, RemoteFiles files, RemotePath folder)
      throws java.io.IOException {
    AccountNames names = files.names();
    OptionalInt uid = names.uidOf(account);
    if (uid.isEmpty()) {
      return null;
    }
    Set<Integer> gids = names.groupsOf(account);
    List<RemotePath> chain = new ArrayList<>(folder.chain());
    List<RemoteAttributes> found = files.lookAll(chain);
    RemotePath stopped = null;
    for (int i = 0; i < chain.size() && stopped == null; i++) {
      RemoteAttributes one = found.get(i);
      if (one != null && one.isFolder() && !may(uid.getAsInt(), gids, one, SEARCH)) {
        stopped = chain.get(i);
      }
    }
    return new ServiceAccess(account, uid.getAsInt(), gids, stopped);
  }

  private static boolean may(int uid, Set<Integer> gids, RemoteAttributes what, int want) {
    if (uid == 0) {
      return true;
    }
    int bits = what.mode().bits();
    int mine = uid == what.uid() ? bits >> 6 : gids.contains(what.gid()) ? bits >> 3 : bits;
    return (mine & want) == want;
  }

  public String account() {
    return account;
  }

  /** The first folder on the way that lets the account no further; {@code null} for none. */
  public RemotePath stoppedAt() {
    return stoppedAt;
  }

  /** Whether the account may read a file of the folder, or list and enter a folder of it. */
  public boolean mayRead(RemoteAttributes entry) {
    int want = entry.isFolder() ? READ | SEARCH : READ;
    return stoppedAt == null && may(uid, gids, entry, want);
  }
}
