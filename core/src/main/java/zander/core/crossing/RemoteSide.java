package zander.core.crossing;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Supplier;
import zander.core.change.HoldingFolder;
import zander.core.change.TemporaryName;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.NewChange;
import zander.core.rights.Mode;

/** A folder on a server. What is replaced or made there is written down in the journal. */
public final class RemoteSide implements Side {
  private final Supplier<RemoteFiles> line;
  private final RemotePath base;
  private final Journal journal;
  private final RemotePath home;
  private long group;
  private RemotePath place;
  private int held;

  /** Temporary files that could not be removed, because the line was gone. */
  private final Queue<RemotePath> leftovers = new ConcurrentLinkedQueue<>();

  public RemoteSide(RemoteFiles files, RemotePath base, Journal journal) {
    this(() -> files, base, journal);
  }

  /**
   * @param line the file service there is now: another one after a line broke and came back
   */
  public RemoteSide(Supplier<RemoteFiles> line, RemotePath base, Journal journal) {
    this(line, base, journal, null);
  }

  /**
   * @param home where what is replaced is held, if that is on the same file system; {@code null}
   *     for not at all
   */
  public RemoteSide(Supplier<RemoteFiles> line, RemotePath base, Journal journal, RemotePath home) {
    this.line = line;
    this.base = base;
    this.journal = journal;
    this.home = home;
  }

  /** What this crossing does belongs together in the journal. */
  synchronized long group() {
    if (group == 0) {
      group = journal.newGroup();
    }
    return group;
  }

  Journal journal() {
    return journal;
  }

  void leave(RemotePath part) {
    leftovers.add(part);
  }

  /** A free name in the holding folder; {@code null} when nothing is or can be held. */
  synchronized RemotePath holdingName() throws IOException {
    if (home == null) {
      return null;
    }
    if (held == 0) {
      try {
        place = new HoldingFolder(files(), home).newPlace(base);
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
      }
    }
    held++;
    return place == null ? null : place.child(Integer.toString(held));
  }

  RemoteFiles files() {
    return line.get();
  }

  @Override
  public void tidyUp() throws IOException {
    for (RemotePath left; (left = leftovers.peek()) != null; ) {
      try {
        files().removeFile(left);
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
        // Gone already, or not ours to remove; its name says what it is.
      }
      leftovers.remove(left);
    }
  }

  private RemotePath at(String path) throws NameNotPossible {
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

  @Override
  public String show(String path) {
    return path.isEmpty()
        ? base.text()
        : (base.isRoot() ? "" : base.text()) + "/" + WireName.toText(path);
  }

  @Override
  public List<Node> list(String folder) throws IOException {
    List<Node> nodes = new ArrayList<>();
    for (RemoteEntry entry : files().list(at(folder), portion -> {})) {
      nodes.add(node(entry.path().wireName(), entry.attributes(), entry.target()));
    }
    return nodes;
  }

  @Override
  public Node look(String path) throws IOException {
    RemotePath at = at(path);
    try {
      RemoteAttributes found = files().look(at);
      String target = found.kind() == FileKind.LINK ? files().readLink(at) : null;
      return node(at.wireName(), found, target);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.NO_SUCH_FILE) {
        return null;
      }
      throw e;
    }
  }

  private Node node(String name, RemoteAttributes found, String target) {
    return new Node(
        name,
        found.kind(),
        found.kind() == FileKind.FILE ? found.size() : 0,
        found.modified(),
        found.mode(),
        target,
        files().names().user(found.uid()) + ":" + files().names().group(found.gid()));
  }

  @Override
  public InputStream read(String file) throws IOException {
    return files().read(at(file));
  }

  @Override
  public Incoming create(String file, Node replacing) throws IOException {
    return new RemoteArrival(this, at(file), replacing);
  }

  @Override
  public void makeFolder(String folder, Mode mode) throws IOException {
    RemotePath at = at(folder);
    Journal.Pending pending =
        journal.begin(NewChange.of(ChangeKind.MAKE_FOLDER, at).group(group()));
    try {
      files().makeFolder(at, mode);
      pending.done();
    } catch (IOException e) {
      pending.failed(e);
      throw e;
    }
  }

  @Override
  public void makeLink(String link, String target, boolean replace) throws IOException {
    RemotePath at = at(link);
    RemotePath part = replace ? TemporaryName.beside(at) : null;
    NewChange change =
        NewChange.of(replace ? ChangeKind.REPLACE : ChangeKind.SEND_UP, at)
            .part(part)
            .group(group())
            .note("a link to " + WireName.toText(target));
    Journal.Pending pending = journal.begin(replace ? change.states(was(at), null) : change);
    try {
      if (replace) {
        files().makeLink(part, target);
        files().renameOver(part, at);
      } else {
        files().makeLink(at, target);
      }
      pending.done(FileState.of(files().look(at)).withTarget(target), List.of());
    } catch (IOException e) {
      pending.failed(e);
      throw e;
    }
  }

  private FileState was(RemotePath at) throws IOException {
    RemoteAttributes now = files().look(at);
    FileState state = FileState.of(now);
    return now.kind() == FileKind.LINK ? state.withTarget(files().readLink(at)) : state;
  }

  @Override
  public void setFolderRights(String folder, Mode mode, long modified) throws IOException {
    RemotePath at = at(folder);
    files().setTimes(at, modified, modified);
    files().setMode(at, mode);
  }

  @Override
  public String why(IOException failure) {
    if (failure instanceof RemoteFailure remote) {
      return switch (remote.reason()) {
        case PERMISSION_DENIED -> "no permission on the server to " + remote.step();
        case NO_SUCH_FILE -> "it is not there on the server";
        case ALREADY_EXISTS -> "the name was taken on the server meanwhile";
        case NO_SPACE -> "the server's disk is full";
        case LINE_LOST -> "the connection broke";
        default -> "the server refused to " + remote.step() + ": " + remote.getMessage();
      };
    }
    return String.valueOf(failure.getMessage());
  }

  @Override
  public boolean isLost(IOException failure) {
    return failure instanceof RemoteFailure remote && remote.reason() == Reason.LINE_LOST;
  }
}
