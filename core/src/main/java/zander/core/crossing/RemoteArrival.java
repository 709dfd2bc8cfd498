package zander.core.crossing;

import java.io.IOException;
import java.util.List;
import zander.core.change.TemporaryName;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.NewChange;
import zander.core.rights.Mode;

/**
 * A file that is arriving on a server. It is in the journal before its temporary file is made. What
 * it replaces gets one more name in the holding folder, which costs no data; where that cannot be
 * done, a small one's content is kept in the journal.
 */
final class RemoteArrival implements Side.Incoming {
  /** Larger ones are replaced without being kept when they cannot be held on the server. */
  private static final long SMALL = 4L << 20;

  private final RemoteSide side;
  private final RemoteFiles files;
  private final RemotePath target;
  private final RemotePath part;
  private final boolean replaces;
  private final Journal.Pending pending;
  private final RemoteWriter writer;
  private RemoteAttributes old;
  private RemotePath held;
  private boolean arrived;
  private long size;

  RemoteArrival(RemoteSide side, RemotePath target, Node replacing) throws IOException {
    this.side = side;
    this.files = side.files();
    this.target = target;
    this.part = TemporaryName.beside(target);
    this.replaces = replacing != null;
    this.pending = side.journal().begin(replaces ? replacing() : sending());
    this.writer = begin();
  }

  private NewChange sending() {
    return NewChange.of(ChangeKind.SEND_UP, target).part(part).group(side.group());
  }

  private NewChange replacing() throws IOException {
    old = files.look(target);
    FileState before = FileState.of(old);
    NewChange change = NewChange.of(ChangeKind.REPLACE, target).part(part).group(side.group());
    if (old.kind() == FileKind.LINK) {
      return change.states(before.withTarget(files.readLink(target)), null);
    }
    byte[] content = null;
    if (old.kind() == FileKind.FILE && !hold() && old.size() <= SMALL) {
      content = files.readAll(target, SMALL);
    }
    return change.states(before, null).to(held).content(content);
  }

  private boolean hold() throws IOException {
    RemotePath name = side.holdingName();
    if (name == null) {
      return false;
    }
    try {
      files.hardLink(target, name);
      held = name;
      return true;
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      // Linux lets nobody link to files of others that they may not write.
      return false;
    }
  }

  private RemoteWriter begin() throws IOException {
    try {
      return files.create(part, new Mode(0600));
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        side.leave(part);
      }
      pending.failed(e);
      throw e;
    }
  }

  @Override
  public void write(byte[] bytes, int offset, int length) throws IOException {
    writer.write(bytes, offset, length);
    size += length;
  }

  @Override
  public String arrive(Mode mode, long modified) throws IOException {
    String lost = replaces ? keepOwner() : null;
    writer.setModeAndTime(mode, modified);
    writer.close();
    if (replaces) {
      files.renameOver(part, target);
    } else {
      files.rename(part, target);
    }
    arrived = true;
    pending.done(
        FileState.of(new RemoteAttributes(FileKind.FILE, size, -1, -1, mode, modified, modified)),
        List.of());
    return lost;
  }

  /** The replaced file's owner and group, where this account may give them. */
  private String keepOwner() throws IOException {
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
    if (arrived) {
      return;
    }
    try {
      writer.close();
    } catch (IOException | RuntimeException e) {
      // What made the writing fail is being told; removing is tried all the same.
    }
    boolean gone = remove(part);
    gone &= held == null || remove(held);
    try {
      if (gone) {
        pending.failed("did not arrive");
      } else {
        pending.lost();
      }
    } catch (IOException e) {
      // The journal keeps it as under way, and the next start looks what became of it.
    }
  }

  private boolean remove(RemotePath path) {
    try {
      files.removeFile(path);
      return true;
    } catch (IOException | RuntimeException e) {
      side.leave(path);
      return false;
    }
  }
}
