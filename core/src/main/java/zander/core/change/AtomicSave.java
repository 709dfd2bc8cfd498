package zander.core.change;

import java.io.IOException;
import java.util.HexFormat;
import java.util.List;
import zander.core.change.SaveFailure.ServerState;
import zander.core.change.SaveFailure.Step;
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
 * Saves a file so that the server has, at every moment, the whole old or the whole new one.
 *
 * <p>The new content is written beside the target under a name of its own, gets the owner, group
 * and mode of the old one, is put on the disk where the server can, and is renamed over it (POSIX
 * {@code rename} replaces in one step). Before the rename the old one is read once more: when it is
 * not what was opened, nothing is changed. Costs about fifteen round trips for a small file.
 *
 * <p>A server that cannot rename over a file ({@link RemoteFiles#renamesOver}) has the old one
 * moved aside and the new one moved in: for a moment the name is free, and a break in it is mended
 * by {@link Recovery} from what the journal knows.
 */
public final class AtomicSave {
  private final RemoteFiles files;
  private final Journal journal;

  public AtomicSave(RemoteFiles files, Journal journal) {
    this.files = files;
    this.journal = journal;
  }

  /** A file's content together with the version it is. */
  public record Opened(FileVersion version, byte[] content) {}

  /**
   * Reads a file for editing.
   *
   * @throws RemoteFailure when it cannot be read, is no file, or, with {@code TOO_LARGE} and before
   *     any of it was fetched, has more than {@code limit} bytes
   */
  public Opened open(RemotePath path, long limit) throws IOException {
    RemotePath real = files.realPath(path);
    RemoteAttributes attributes = files.lookThrough(real);
    if (attributes.kind() != FileKind.FILE) {
      throw new RemoteFailure(Reason.NOT_SUPPORTED, "open", path, "not a file", null);
    }
    if (attributes.size() > limit) {
      throw new RemoteFailure(Reason.TOO_LARGE, "open", path, attributes.size() + " bytes", null);
    }
    byte[] content = files.readAll(real, limit);
    return new Opened(FileVersion.of(path, real, files.lookThrough(real), content), content);
  }

  /** What a save may do beyond replacing the content. */
  public enum Allow {
    /**
     * The file may belong to another owner or group afterwards, when this account cannot help it.
     */
    OWNER_CHANGE,
    /** What somebody else wrote meanwhile may be replaced; the journal keeps it. */
    REPLACE_OTHERS_CHANGE
  }

  /**
   * Saves.
   *
   * @param before the version the new content is based on
   * @return the version now on the server
   * @throws SaveFailure saying at which step, and in which state the server's file is
   */
  public FileVersion save(FileVersion before, byte[] content, List<Allow> allowed)
      throws SaveFailure {
    return save(before, content, allowed, 0, 0);
  }

  /**
   * The same as a part of something larger.
   *
   * @param group the number that changes of one action share in the journal; 0 for none
   * @param undoes the entry of the journal that this puts back; 0 for none
   */
  public FileVersion save(
      FileVersion before, byte[] content, List<Allow> allowed, long group, long undoes)
      throws SaveFailure {
    return new Run(before, content, allowed, group, undoes).run();
  }

  /** One save. */
  private final class Run {
    private final FileVersion before;
    private final byte[] content;
    private final List<Allow> allowed;
    private final RemotePath target;
    private final long group;
    private final long undoes;
    private Step step = Step.CHECK;
    private RemotePath part;
    private RemotePath aside;
    private boolean partMade;
    private ServerState state = ServerState.OLD;
    private Journal.Pending pending;

    Run(FileVersion before, byte[] content, List<Allow> allowed, long group, long undoes) {
      this.group = group;
      this.undoes = undoes;
      this.before = before;
      this.content = content;
      this.allowed = allowed;
      this.target = before.real();
    }

    FileVersion run() throws SaveFailure {
      try {
        RemoteAttributes now = lookBefore();
        byte[] replaced = checkUnchanged();
        step = Step.JOURNAL;
        part = TemporaryName.beside(target);
        aside = files.renamesOver() ? null : TemporaryName.beside(target);
        pending = journal.begin(written(now, replaced));
        FolderTimes times = FolderTimes.before(files, target.parent());
        RemoteAttributes written = writeBeside(now);
        step = Step.CHECK_AGAIN;
        if (files.lookThrough(target).looksChangedSince(now)) {
          throw failure(SaveFailure.Reason.CHANGED_MEANWHILE, null);
        }
        step = Step.RENAME;
        state = ServerState.OLD_OR_NEW;
        putInPlace();
        state = ServerState.NEW;
        partMade = false;
        step = Step.LOOK_AFTER;
        pending.done(FileState.of(written).withDigest(digest(content)), times.afterIfPossible());
        return FileVersion.of(before.asked(), target, written, content);
      } catch (SaveFailure e) {
        throw ended(e);
      } catch (IOException | RuntimeException e) {
        throw ended(explain(e));
      }
    }

    /** The new one is whole; from here on the journal can bring it to its end. */
    private void putInPlace() throws IOException {
      if (aside == null) {
        files.renameOver(part, target);
        return;
      }
      Renames.inSteps(files, part, target, aside);
      try {
        files.removeFile(aside);
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
        // The save is done; what is left has a name that says what it is.
      }
    }

    private NewChange written(RemoteAttributes now, byte[] replaced) {
      return NewChange.of(ChangeKind.SAVE, target)
          .states(
              FileState.of(now).withDigest(digest(replaced)),
              FileState.of(now).withDigest(digest(content)))
          .content(replaced)
          .part(part)
          .to(aside)
          .group(group)
          .undoes(undoes);
    }

    private static String digest(byte[] bytes) {
      return HexFormat.of().formatHex(FileVersion.digestOf(bytes));
    }

    /** Taken before the content is read, so that a change during the reading shows later. */
    private RemoteAttributes lookBefore() throws IOException {
      try {
        return files.lookThrough(target);
      } catch (RemoteFailure e) {
        throw e.reason() == Reason.NO_SUCH_FILE ? failure(SaveFailure.Reason.GONE, e) : e;
      }
    }

    /** Reads what is there now; equal content is no change, whatever its times say. */
    private byte[] checkUnchanged() throws IOException {
      RemotePath real = files.realPath(before.asked());
      byte[] now = files.readAll(target, Math.max(before.attributes().size() * 4, 64L << 20));
      boolean same = real.equals(target) && before.hasContent(now);
      if (!same && !allowed.contains(Allow.REPLACE_OTHERS_CHANGE)) {
        throw failure(SaveFailure.Reason.CHANGED_MEANWHILE, null);
      }
      return now;
    }

    private RemoteAttributes writeBeside(RemoteAttributes old) throws IOException {
      step = Step.CREATE;
      // Closed to others until it has its owner: the new content may be a secret.
      try (RemoteWriter writer = create()) {
        step = Step.WRITE;
        writer.write(content, 0, content.length);
        // All that was sent is answered before the look is: a full disk is told here.
        RemoteAttributes fresh = writer.look();
        step = Step.RIGHTS;
        boolean owned = giveRights(writer, old, fresh);
        step = Step.SYNC;
        writer.finish();
        return checkWritten(writer.look(), old, owned);
      }
    }

    private RemoteWriter create() throws IOException {
      try {
        RemoteWriter writer = files.create(part, new Mode(0600));
        partMade = true;
        return writer;
      } catch (RemoteFailure e) {
        // What was refused was not made; of a lost line nobody knows.
        partMade = e.reason() == Reason.LINE_LOST;
        throw e;
      }
    }

    /** Whether the new file belongs to the same owner and group as the old one. */
    private boolean giveRights(RemoteWriter writer, RemoteAttributes old, RemoteAttributes fresh)
        throws IOException {
      boolean owned = fresh.uid() == old.uid() && fresh.gid() == old.gid();
      if (!owned) {
        owned = tryOwner(writer, old.uid(), old.gid());
        if (!owned && !allowed.contains(Allow.OWNER_CHANGE)) {
          throw failure(SaveFailure.Reason.OWNER_WOULD_CHANGE, null);
        }
        if (!owned) {
          tryOwner(writer, fresh.uid(), old.gid());
        }
      }
      // After the owner, because a change of owner clears the set-id bits; and those bits are not
      // for another owner than the one who set them.
      writer.setMode(owned ? old.mode() : new Mode(old.mode().bits() & 01777));
      return owned;
    }

    private RemoteAttributes checkWritten(
        RemoteAttributes written, RemoteAttributes old, boolean owned) throws RemoteFailure {
      if (written.size() != content.length) {
        throw new RemoteFailure(
            Reason.BAD_ANSWER, "write", part, written.size() + " bytes arrived", null);
      }
      if (owned && !written.mode().equals(old.mode())) {
        throw new RemoteFailure(
            Reason.PERMISSION_DENIED, "set mode", part, "mode is " + written.mode(), null);
      }
      return written;
    }

    private boolean tryOwner(RemoteWriter writer, int uid, int gid) throws IOException {
      try {
        writer.setOwner(uid, gid);
        RemoteAttributes now = writer.look();
        return now.uid() == uid && now.gid() == gid;
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
        return false;
      }
    }

    private SaveFailure failure(SaveFailure.Reason reason, Throwable cause) {
      return new SaveFailure(step, reason, state, before, partMade ? part : null, cause);
    }

    private SaveFailure explain(Exception e) {
      boolean lost = e instanceof RemoteFailure failure && failure.reason() == Reason.LINE_LOST;
      if (step == Step.RENAME && !lost) {
        state = ServerState.OLD;
      }
      return failure(lost ? SaveFailure.Reason.LINE_LOST : SaveFailure.Reason.REFUSED, e);
    }

    /** Cleans up beside the target as far as the line allows, and ends the journal's entry. */
    private SaveFailure ended(SaveFailure e) {
      boolean cleaned = !partMade;
      if (partMade && e.reason() != SaveFailure.Reason.LINE_LOST) {
        try {
          files.removeFile(part);
          cleaned = true;
        } catch (RemoteFailure left) {
          cleaned = left.reason() == Reason.NO_SUCH_FILE;
        } catch (IOException | RuntimeException left) {
          e.addSuppressed(left);
        }
      }
      try {
        if (pending != null && e.reason() == SaveFailure.Reason.LINE_LOST) {
          pending.lost();
        } else if (pending != null) {
          pending.failed(e.reason() + " at " + e.step() + ", server has " + e.state());
        }
      } catch (IOException lost) {
        e.addSuppressed(lost);
      }
      return cleaned
          ? new SaveFailure(
              e.step(),
              e.reason(),
              e.state(),
              before,
              null,
              e.getCause() == null ? e : e.getCause())
          : e;
    }
  }
}
