package zander.core.change;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.function.LongConsumer;
import zander.core.change.place.HoldingFolder;
import zander.core.connect.command.Commands;
import zander.core.files.DiskSpace;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
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
import zander.core.phrase.JournalPhrase;
import zander.core.work.Cancellation;

/** Deletes: into the holding folder, from where it can be put back, or for good. */
public final class DeleteTask {
  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;
  private final RemotePath home;

  public DeleteTask(RemoteFiles files, Commands commands, Journal journal, RemotePath home) {
    this.files = files;
    this.commands = commands;
    this.journal = journal;
    this.home = home;
  }

  /** What must not go by a slip of the finger. */
  public enum Guard {
    NONE,
    /** The root, and never asked: it cannot go at all. */
    ROOT,
    /** The home folder, or one above it. */
    HOME,
    /** Where another file system begins. */
    MOUNT_POINT
  }

  /** Whether the name has to be typed before it goes. */
  public Guard guard(RemotePath path) throws IOException {
    return guards(List.of(path)).get(0);
  }

  /** The same for many, in their order; all of them are looked at together. */
  public List<Guard> guards(List<RemotePath> paths) throws IOException {
    List<RemoteAttributes> looks = files.lookAll(paths);
    Map<RemotePath, Long> fileSystems = new HashMap<>();
    List<Guard> guards = new ArrayList<>();
    for (int i = 0; i < paths.size(); i++) {
      RemotePath path = paths.get(i);
      RemoteAttributes is = looks.get(i);
      if (path.isRoot()) {
        guards.add(Guard.ROOT);
      } else if (home.chain().contains(path)) {
        guards.add(Guard.HOME);
      } else {
        boolean begins = is != null && is.isFolder() && isMountPoint(path, fileSystems);
        guards.add(begins ? Guard.MOUNT_POINT : Guard.NONE);
      }
    }
    return guards;
  }

  private boolean isMountPoint(RemotePath folder, Map<RemotePath, Long> known) throws IOException {
    DiskSpace here = files.space(folder);
    RemotePath parent = folder.parent();
    if (!known.containsKey(parent)) {
      DiskSpace above = files.space(parent);
      known.put(parent, above == null ? null : above.id());
    }
    Long above = known.get(parent);
    return here != null && above != null && here.id() != above;
  }

  /**
   * Moves entries of one folder into the holding folder, many at once. One that fails does not stop
   * the rest.
   *
   * @return what did not go, and why
   */
  public List<RemoteFailure> hold(List<RemotePath> paths) throws IOException {
    return hold(paths, held -> {}, new Cancellation());
  }

  /**
   * The same, to be stopped between portions.
   *
   * @param progress told how many have been tried
   * @throws CancellationException when it was stopped; each entry is where it was or held
   */
  public List<RemoteFailure> hold(List<RemotePath> paths, LongConsumer progress, Cancellation stop)
      throws IOException {
    return new HoldTask(files, journal, home).hold(paths, progress, stop);
  }

  /** A place in the holding folder for something of a folder. */
  RemotePath newPlace(RemotePath folder) throws IOException {
    return new HoldingFolder(files, home).newPlace(folder);
  }

  /** Holds what putting back takes away. */
  void holdFor(RemotePath path, long group, long undoes) throws IOException {
    new HoldTask(files, journal, home).holdOne(path, group, undoes);
  }

  static RemoteFailure rootRefused() {
    return new RemoteFailure(
        Reason.NOT_SUPPORTED, FileStep.DELETE, RemotePath.ROOT, FilePhrase.ROOT_STAYS.of(), null);
  }

  /**
   * Deletes so that nothing is kept; in the journal only that it was done.
   *
   * @param progress told how many entries are gone, on any thread
   * @return what did not go, and why
   * @throws CancellationException when it was stopped; what is left is whole, and the rest is gone
   */
  public List<RemoteFailure> forGood(
      List<RemotePath> paths, LongConsumer progress, Cancellation stop) throws IOException {
    List<RemoteFailure> failed = new ArrayList<>();
    long group = paths.size() > 1 ? journal.newGroup() : 0;
    TreeRemoval removal = new TreeRemoval(files, commands, progress, stop);
    List<RemoteBatch.Look> looks = files.batch().lookAtThemselves(paths);
    for (int i = 0; i < paths.size(); i++) {
      RemotePath path = paths.get(i);
      RemoteAttributes is;
      try {
        is = looks.get(i).orThrow();
      } catch (RemoteFailure e) {
        failed.add(e);
        continue;
      }
      Journal.Pending pending =
          journal.begin(
              NewChange.of(ChangeKind.PURGE, path).states(FileState.of(is), null).group(group));
      try {
        stop.throwIfStopped();
        if (path.isRoot()) {
          throw rootRefused();
        }
        removal.remove(path, is);
        pending.done();
      } catch (RemoteFailure e) {
        pending.failed(e);
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
        failed.add(e);
      } catch (CancellationException e) {
        pending.failed(JournalPhrase.STOPPED_HALFWAY);
        throw e;
      }
    }
    return failed;
  }
}
