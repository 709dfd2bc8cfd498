package zander.core.transfer.server;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.function.Consumer;
import java.util.stream.Stream;
import zander.core.connect.AccountIdentity;
import zander.core.files.AccountNames;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
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
          throw new NameNotPossible("'" + WireName.toText(name) + "' is not a file name");
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

  public TreeEntry look(String path) throws IOException {
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

  private TreeEntry node(String name, RemoteAttributes found, String target) throws IOException {
    return node(name, found, target, line.files().names());
  }

  private static TreeEntry node(
      String name, RemoteAttributes found, String target, AccountNames names) {
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

  public String why(IOException failure) {
    if (failure instanceof RemoteFailure remote) {
      String said = remote.said() == null ? "" : remote.said().strip();
      String quoted = said.isEmpty() || said.equals("Failure") ? "" : ": " + said;
      return switch (remote.reason()) {
        case PERMISSION_DENIED -> "no permission on the server to " + remote.step();
        case NO_SUCH_FILE -> "it is not there on the server";
        case ALREADY_EXISTS -> "the name was taken on the server meanwhile";
        case NO_SPACE -> "the server's disk is full";
        case NO_INODES -> "the server's disk takes no more files: its file table (inodes) is full";
        case QUOTA -> "your disk quota on the server is used up";
        case READ_ONLY -> "the file system on the server is mounted read-only";
        case LINKS_FOLLOWED -> "the server looks through links, so this link is left alone";
        case LEADS_ELSEWHERE ->
            "another account on the server has put a link there, which leads to " + said;
        case NO_SHELL -> "this account has no shell on the server" + quoted;
        case LINE_LOST -> "the connection broke";
        case NOT_A_FOLDER -> "it is not a folder on the server";
        case NOT_SUPPORTED -> "the server cannot do that" + quoted;
        case TOO_LARGE -> "it is too large" + quoted;
        case BAD_ANSWER -> "the server answered against the protocol" + quoted;
        case FAILED ->
            "the server could not "
                + remote.step()
                + (quoted.isEmpty() ? ", and gave no reason" : quoted);
      };
    }
    return String.valueOf(failure.getMessage());
  }
}
