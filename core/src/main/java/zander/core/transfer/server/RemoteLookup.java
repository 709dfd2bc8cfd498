package zander.core.transfer.server;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import zander.core.connect.AccountIdentity;
import zander.core.files.AccountNames;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.phrase.Phrase;
import zander.core.phrase.TransferPhrase;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.Endpoint.NameNotPossible;
import zander.core.transfer.endpoint.TreeEntry;

/**
 * What is in a server's folder, as a transfer sees it; the methods are those of {@link Endpoint}.
 */
public final class RemoteLookup {
  private final ServerChannels line;
  private final RemotePath base;

  public RemoteLookup(ServerChannels line, RemotePath base) {
    this.line = line;
    this.base = base;
  }

  public RemotePath at(String path) throws NameNotPossible {
    RemotePath at = base;
    if (!path.isEmpty()) {
      for (String name : path.split("/")) {
        if (!WireName.isSafe(name)) {
          throw new NameNotPossible(TransferPhrase.NO_FILE_NAME.of(WireName.toText(name)));
        }
        at = at.child(name);
      }
    }
    return at;
  }

  public String show(String path) {
    return path.isEmpty()
        ? base.text()
        : (base.isRoot() ? "" : base.text()) + "/" + WireName.toText(path);
  }

  public List<TreeEntry> list(String folder) throws IOException {
    return nodes(line.files().list(at(folder), portion -> {}).stream(), line.files().names());
  }

  /** Links come last, because where they lead is asked for when the folder is known. */
  public void list(String folder, Consumer<List<TreeEntry>> portion) throws IOException {
    AccountNames names = line.files().names();
    List<RemoteEntry> all =
        line.files()
            .list(
                at(folder),
                part ->
                    portion.accept(nodes(part.stream().filter(entry -> !isLink(entry)), names)));
    portion.accept(nodes(all.stream().filter(RemoteLookup::isLink), names));
  }

  private static boolean isLink(RemoteEntry entry) {
    return entry.attributes().kind() == FileKind.LINK;
  }

  private static List<TreeEntry> nodes(Stream<RemoteEntry> entries, AccountNames names) {
    return entries
        .map(entry -> node(entry.path().wireName(), entry.attributes(), entry.target(), names))
        .toList();
  }

  public @Nullable TreeEntry look(String path) throws IOException {
    RemotePath at = at(path);
    try {
      RemoteAttributes found = line.files().look(at);
      String target = found.kind() == FileKind.LINK ? line.files().readLink(at) : null;
      return node(at.wireName(), found, target);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.NO_SUCH_FILE) {
        return null;
      }
      throw e;
    }
  }

  public List<TreeEntry> lookAll(List<String> paths) throws IOException {
    List<RemotePath> at = all(paths);
    List<RemoteAttributes> found = line.files().batch().look(at);
    List<RemotePath> links = new ArrayList<>();
    for (int i = 0; i < at.size(); i++) {
      if (found.get(i) != null && found.get(i).kind() == FileKind.LINK) {
        links.add(at.get(i));
      }
    }
    Iterator<String> targets = line.files().batch().readLinks(links).iterator();
    List<TreeEntry> nodes = new ArrayList<>();
    for (int i = 0; i < at.size(); i++) {
      RemoteAttributes one = found.get(i);
      String target = one != null && one.kind() == FileKind.LINK ? targets.next() : null;
      nodes.add(one == null ? null : node(at.get(i).wireName(), one, target));
    }
    return nodes;
  }

  public List<TreeEntry> lookThroughAll(List<String> links) throws IOException {
    List<RemotePath> at = all(links);
    List<RemoteAttributes> found = line.files().batch().lookThrough(at);
    List<TreeEntry> nodes = new ArrayList<>();
    for (int i = 0; i < at.size(); i++) {
      RemoteAttributes one = found.get(i);
      nodes.add(one == null ? null : node(at.get(i).wireName(), one, null));
    }
    return nodes;
  }

  private List<RemotePath> all(List<String> paths) throws NameNotPossible {
    List<RemotePath> at = new ArrayList<>();
    for (String path : paths) {
      at.add(at(path));
    }
    return at;
  }

  private TreeEntry node(String name, RemoteAttributes found, @Nullable String target)
      throws IOException {
    return node(name, found, target, line.files().names());
  }

  private static TreeEntry node(
      String name, RemoteAttributes found, @Nullable String target, AccountNames names) {
    boolean link = found.kind() == FileKind.LINK;
    return new TreeEntry(
        name,
        found.kind(),
        found.kind() == FileKind.FILE ? found.size() : 0,
        found.modified(),
        found.mode(),
        link && target == null ? "" : target,
        names.user(found.uid()) + ":" + names.group(found.gid()));
  }

  public boolean mayWrite(TreeEntry folder) {
    AccountIdentity me = line.whoAmI();
    if (me == null || me.uid() <= 0) {
      return true;
    }
    String[] owner = folder.owner().split(":", 2);
    int mode = folder.mode().bits();
    int mine =
        owner[0].equals(me.account())
            ? mode >> 6
            : me.groups().contains(owner[1]) ? mode >> 3 : mode;
    return (mine & 2) != 0;
  }

  public Phrase why(IOException failure) {
    return failure instanceof RemoteFailure remote ? why(remote) : Phrase.of(failure);
  }

  private static Phrase why(RemoteFailure failure) {
    return switch (failure.reason()) {
      case PERMISSION_DENIED -> TransferPhrase.NO_PERMISSION.of(failure.step());
      case NO_SUCH_FILE -> TransferPhrase.NOT_THERE.of();
      case ALREADY_EXISTS -> TransferPhrase.TAKEN.of();
      case NO_SPACE -> TransferPhrase.DISK_FULL.of();
      case NO_INODES -> TransferPhrase.FILE_TABLE_FULL.of();
      case QUOTA -> TransferPhrase.QUOTA.of();
      case READ_ONLY -> TransferPhrase.READ_ONLY.of();
      case LINKS_FOLLOWED -> TransferPhrase.LINKS_FOLLOWED.of();
      case LEADS_ELSEWHERE -> TransferPhrase.LINK_LEADS_TO.of(failure.detail());
      case NO_SHELL -> because(TransferPhrase.NO_SHELL.of(), failure);
      case LINE_LOST -> TransferPhrase.LINE_LOST.of();
      case NOT_A_FOLDER -> TransferPhrase.NOT_A_FOLDER.of();
      case NOT_SUPPORTED -> because(TransferPhrase.NOT_POSSIBLE.of(), failure);
      case TOO_LARGE -> because(TransferPhrase.TOO_LARGE.of(), failure);
      case BAD_ANSWER -> because(TransferPhrase.AGAINST_PROTOCOL.of(), failure);
      case FAILED -> because(TransferPhrase.SERVER_COULD_NOT.of(failure.step()), failure);
    };
  }

  /** Version 3 of SFTP has one word for most failures, which tells nothing. */
  private static Phrase because(Phrase what, RemoteFailure failure) {
    String said = failure.said().strip();
    boolean mute = failure.detail().isQuoted() && (said.isEmpty() || said.equals("Failure"));
    return mute ? what : TransferPhrase.BECAUSE.of(what, failure.detail());
  }
}
