package zander.core.access;

import java.io.IOException;
import java.util.List;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.Commands;
import zander.core.files.AccountNames;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
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

  private final String account;
  private final Asker asker;
  private final AccessLists lists;
  private final @Nullable RemotePath stoppedAt;

  private ServiceAccess(
      String account, Asker asker, AccessLists lists, @Nullable RemotePath stoppedAt) {
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
  public static @Nullable ServiceAccess of(
      String account, RemoteFiles files, Commands commands, RemotePath folder) throws IOException {
    AccountNames names = files.names();
    OptionalInt uid = names.uidOf(account);
    if (uid.isEmpty()) {
      return null;
    }
    Asker asker = new Asker(uid.getAsInt(), names.groupsOf(account));
    List<Way.Step> folders =
        Way.to(files, folder).steps().stream()
            .filter(step -> step.is() != null && step.is().isFolder())
            .toList();
    AccessLists lists =
        AccessLists.ask(commands, folder, folders.stream().map(Way.Step::path).toList());
    RemotePath stopped = null;
    for (Way.Step one : folders) {
      Answer may = AccessList.may(asker, rights(one.is()), lists.of(one.path()), SEARCH);
      // The folder that is nearest to the root stops first.
      if (may == Answer.NO
          && (stopped == null || one.path().chain().size() < stopped.chain().size())) {
        stopped = one.path();
      }
    }
    return new ServiceAccess(account, asker, lists, stopped);
  }

  private static Rights rights(RemoteAttributes of) {
    return new Rights(of.uid(), of.gid(), of.mode());
  }

  public String account() {
    return account;
  }

  /** The first folder on the way that lets the account no further; {@code null} for none. */
  public @Nullable RemotePath stoppedAt() {
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
