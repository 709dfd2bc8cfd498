package zander.core.access;

import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import zander.core.connect.command.Commands;
import zander.core.files.AccountNames;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.rights.AccessList;
import zander.core.rights.AccessList.Answer;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.Rights;

/**
 * What an account of the server, such as the one its web server runs as, may read in a folder: by
 * owner, group, mode and access control list of each folder on the way and of the file itself
 * (POSIX XBD 4.5, acl(5)).
 */
public final class ServiceAccess {
  private static final int READ = 4;
  private static final int SEARCH = 1;

  /** As many as Linux follows on a way (path_resolution(7)). */
  private static final int MOST_LINKS = 40;

  private final String account;
  private final Asker asker;
  private final AccessLists lists;
  private final RemotePath stoppedAt;

  private ServiceAccess(String account, Asker asker, AccessLists lists, RemotePath stoppedAt) {
    this.account = account;
    this.asker = asker;
    this.lists = lists;
    this.stoppedAt = stoppedAt;
  }

  /**
   * Looks at a folder, all on the way to it and what is in it; waits.
   *
   * @return {@code null} when the server does not tell who the account is
   */
  public static ServiceAccess of(
      String account, RemoteFiles files, Commands commands, RemotePath folder) throws IOException {
    AccountNames names = files.names();
    OptionalInt uid = names.uidOf(account);
    if (uid.isEmpty()) {
      return null;
    }
    Asker asker = new Asker(uid.getAsInt(), names.groupsOf(account));
    Map<RemotePath, RemoteAttributes> way = wayTo(files, folder);
    AccessLists lists = AccessLists.ask(commands, folder, List.copyOf(way.keySet()));
    RemotePath stopped = null;
    for (Map.Entry<RemotePath, RemoteAttributes> one : way.entrySet()) {
      Answer may = AccessList.may(asker, rights(one.getValue()), lists.of(one.getKey()), SEARCH);
      // The folder that is nearest to the root stops first.
      if (may == Answer.NO
          && (stopped == null || one.getKey().chain().size() < stopped.chain().size())) {
        stopped = one.getKey();
      }
    }
    return new ServiceAccess(account, asker, lists, stopped);
  }

  /** The folders that must be entered on a way, with links followed as the kernel does it. */
  private static Map<RemotePath, RemoteAttributes> wayTo(RemoteFiles files, RemotePath folder)
      throws IOException {
    Map<RemotePath, RemoteAttributes> way = new HashMap<>();
    RemotePath at = folder;
    for (int links = 0; links <= MOST_LINKS; links++) {
      List<RemotePath> chain = at.chain();
      List<RemoteAttributes> found = files.lookAll(chain);
      RemotePath next = null;
      for (int i = 0; i < chain.size() && next == null; i++) {
        RemoteAttributes one = found.get(i);
        if (one != null && one.kind() == FileKind.LINK) {
          next = AccessReader.behind(files, chain, i);
        } else if (one != null && one.isFolder()) {
          way.put(chain.get(i), one);
        }
      }
      if (next == null) {
        return way;
      }
      at = next;
    }
    throw new RemoteFailure(Reason.FAILED, "look at", folder, "too many links", null);
  }

  private static Rights rights(RemoteAttributes of) {
    return new Rights(of.uid(), of.gid(), of.mode());
  }

  public String account() {
    return account;
  }

  /** The first folder on the way that lets the account no further; {@code null} for none. */
  public RemotePath stoppedAt() {
    return stoppedAt;
  }

  /** Whether access control lists are seen too. */
  public boolean seesLists() {
    return lists.areKnown();
  }

  /**
   * Whether the account may not read a file of the folder, or not list and enter a folder of it. Of
   * what cannot be told it is not said.
   */
  public boolean isRefused(RemoteEntry entry) {
    // One after the other, as the kernel is asked: two groups may each give one of them.
    return stoppedAt != null
        || isRefused(entry, READ)
        || (entry.attributes().isFolder() && isRefused(entry, SEARCH));
  }

  private boolean isRefused(RemoteEntry entry, int want) {
    Rights rights = rights(entry.attributes());
    return AccessList.may(asker, rights, lists.of(entry.path()), want) == Answer.NO;
  }
}
