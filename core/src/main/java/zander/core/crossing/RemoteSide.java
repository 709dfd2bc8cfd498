package zander.core.crossing;

import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.function.Supplier;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.files.WireName;
import zander.core.journal.ChangeKind;
import zander.core.journal.Journal;
import zander.core.rights.Mode;

/** A folder on a server. What is replaced or made there is written down in the journal. */
public final class RemoteSide implements Side {
  private final Supplier<RemoteFiles> line;
  private final RemotePath base;
  private final Journal journal;

  /** Temporary files that could not be removed, because the line was gone. */
  private final Queue<RemotePath> leftovers = new ConcurrentLinkedQueue<>();

  public RemoteSide(RemoteFiles files, RemotePath base, Journal journal) {
    this(() -> files, base, journal);
  }

  /**
   * @param line the file service there is now: another one after a line broke and came back
   */
  public RemoteSide(Supplier<RemoteFiles> line, RemotePath base, Journal journal) {
    this.line = line;
    this.base = base;
    this.journal = journal;
  }

  private RemoteFiles files() {
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
  public Incoming create(String file) throws IOException {
    return new Arriving(at(file));
  }

  private final class Arriving implements Incoming {
    private final RemotePath target;
    private final RemotePath part;
    private final RemoteFiles files = line.get();
    private final RemoteWriter writer;
    private boolean arrived;

    Arriving(RemotePath target) throws IOException {
      this.target = target;
      this.part = target.parent().child(Side.partName(target.wireName()));
      this.writer = begin();
    }

    private RemoteWriter begin() throws IOException {
      try {
        return files.create(part, new Mode(0600));
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          leftovers.add(part);
        }
        throw e;
      }
    }

    @Override
    public void write(byte[] bytes, int offset, int length) throws IOException {
      writer.write(bytes, offset, length);
    }

    @Override
    public String arrive(Mode mode, long modified, Node replacing) throws IOException {
      String lost = null;
      String before = "";
      if (replacing != null) {
        RemoteAttributes old = files.look(target);
        lost = keepOwner(old);
        before = replacing.owner() + " " + old.mode().octal() + ", " + old.size() + " bytes";
      }
      Journal.Pending pending =
          journal.begin(
              replacing == null ? ChangeKind.SEND_UP : ChangeKind.REPLACE,
              target.text(),
              before,
              "sent up",
              null);
      try {
        writer.setModeAndTime(mode, modified);
        writer.close();
        if (replacing == null) {
          files.rename(part, target);
        } else {
          files.renameOver(part, target);
        }
        pending.done();
      } catch (IOException e) {
        pending.failed(why(e));
        throw e;
      }
      arrived = true;
      return lost;
    }

    /** The replaced file's owner and group, where this account may give them. */
    private String keepOwner(RemoteAttributes old) throws IOException {
      RemoteAttributes now = writer.look();
      if (old.kind() != FileKind.FILE || (now.uid() == old.uid() && now.gid() == old.gid())) {
        return null;
      }
      for (int uid : new int[] {old.uid(), now.uid()}) {
        try {
          writer.setOwner(uid, old.gid());
          now = writer.look();
        } catch (RemoteFailure e) {
          if (e.reason() == Reason.LINE_LOST) {
            throw e;
          }
        }
        if (now.uid() == old.uid() && now.gid() == old.gid()) {
          return null;
        }
      }
      return "belongs to "
          + files.names().user(now.uid())
          + ":"
          + files.names().group(now.gid())
          + " now";
    }

    @Override
    public void close() {
      if (!arrived) {
        try {
          writer.close();
        } catch (IOException | RuntimeException e) {
          // What made the writing fail is being told; removing is tried all the same.
        }
        try {
          files.removeFile(part);
        } catch (IOException | RuntimeException e) {
          leftovers.add(part);
        }
      }
    }
  }

  @Override
  public void makeFolder(String folder, Mode mode) throws IOException {
    RemotePath at = at(folder);
    Journal.Pending pending =
        journal.begin(ChangeKind.MAKE_FOLDER, at.text(), "", "a folder", null);
    try {
      files().makeFolder(at, mode);
      pending.done();
    } catch (IOException e) {
      pending.failed(e.getMessage());
      throw e;
    }
  }

  @Override
  public void makeLink(String link, String target, boolean replace) throws IOException {
    RemotePath at = at(link);
    Journal.Pending pending =
        journal.begin(
            replace ? ChangeKind.REPLACE : ChangeKind.SEND_UP,
            at.text(),
            "",
            "a link to " + WireName.toText(target),
            null);
    try {
      if (replace) {
        RemotePath part = at.parent().child(Side.partName(at.wireName()));
        files().makeLink(part, target);
        files().renameOver(part, at);
      } else {
        files().makeLink(at, target);
      }
      pending.done();
    } catch (IOException e) {
      pending.failed(why(e));
      throw e;
    }
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
