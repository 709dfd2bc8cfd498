package zander.core.change;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.NewChange;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;

/**
 * Sets owner, group and mode of a selection, one file after the other, each written down before and
 * read back after. Links are followed, as {@code chmod} and {@code chown} do.
 */
public final class RightsChange {
  private final RemoteFiles files;
  private final Journal journal;

  private final long undoes;
  private long group;

  public RightsChange(RemoteFiles files, Journal journal) {
    this(files, journal, 0, 0);
  }

  /**
   * @param undoes the entry of the journal that this puts back
   * @param group what it belongs together with in the journal; 0 for nothing
   */
  RightsChange(RemoteFiles files, Journal journal, long undoes, long group) {
    this.files = files;
    this.journal = journal;
    this.undoes = undoes;
    this.group = group;
  }

  /** Changes made from now on belong together in the journal. */
  public RightsChange asOne() {
    group = journal.newGroup();
    return this;
  }

  /** What the new mode of a file is, from the one it has. */
  @FunctionalInterface
  public interface NewMode {
    Mode of(Mode before, boolean folder);
  }

  /**
   * What became of one file.
   *
   * @param entry as the server shows it now; {@code null} when it could not be read back
   * @param failure why it is not as wished, or {@code null}
   */
  public record Result(
      RemotePath path, @Nullable RemoteEntry entry, @Nullable RemoteFailure failure) {}

  /**
   * Changes all of them; a file that fails does not stop the others.
   *
   * @param uid the new owner, or empty to leave it
   * @param gid the new group, or empty to leave it
   * @param mode the new mode, or {@code null} to leave it
   */
  public List<Result> apply(List<RemotePath> paths, OptionalInt uid, OptionalInt gid, NewMode mode)
      throws IOException {
    List<Result> results = new ArrayList<>();
    for (RemotePath path : paths) {
      results.add(applyTo(path, uid, gid, mode));
    }
    return results;
  }

  private Result applyTo(RemotePath path, OptionalInt uid, OptionalInt gid, NewMode newMode)
      throws IOException {
    RemoteFailure failure = null;
    Journal.Pending pending = null;
    try {
      // What others can turn is reached without its link, which could come to lead elsewhere.
      RemotePath at = files.othersMayTurn(path) ? files.realPath(path) : path;
      RemoteAttributes before = files.lookThrough(at);
      int toUid = uid.orElse(before.uid());
      int toGid = gid.orElse(before.gid());
      Mode mode = newMode == null ? before.mode() : newMode.of(before.mode(), before.isFolder());
      boolean owner = toUid != before.uid() || toGid != before.gid();
      pending =
          journal.begin(
              NewChange.of(ChangeKind.RIGHTS, path)
                  .states(FileState.of(before), FileState.of(meant(before, toUid, toGid, mode)))
                  .group(group)
                  .undoes(undoes));
      if (owner) {
        files.setOwner(at, toUid, toGid);
      }
      // After the owner: a change of owner clears the set-id bits.
      if (owner || !mode.equals(before.mode())) {
        files.setMode(at, mode);
      }
      RemoteAttributes after = files.lookThrough(at);
      if (after.uid() != toUid || after.gid() != toGid || !after.mode().equals(mode)) {
        throw new RemoteFailure(
            Reason.NOT_SUPPORTED,
            FileStep.SET_RIGHTS,
            path,
            FilePhrase.RIGHTS_NOT_KEPT_NOW.of(text(after.uid(), after.gid(), after.mode())),
            null);
      }
      pending.done();
    } catch (RemoteFailure e) {
      failure = e;
      if (pending != null) {
        pending.failed(e);
      }
      if (e.reason() == Reason.LINE_LOST) {
        return new Result(path, null, e);
      }
    }
    try {
      return new Result(path, files.entry(path), failure);
    } catch (RemoteFailure e) {
      return new Result(path, null, failure == null ? e : failure);
    }
  }

  private static RemoteAttributes meant(RemoteAttributes before, int uid, int gid, Mode mode) {
    return new RemoteAttributes(
        before.kind(), before.size(), uid, gid, mode, before.modified(), before.accessed());
  }

  private String text(int uid, int gid, Mode mode) {
    return files.names().user(uid) + ":" + files.names().group(gid) + " " + mode.octal();
  }
}
