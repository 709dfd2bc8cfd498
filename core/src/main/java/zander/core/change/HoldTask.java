package zander.core.change;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import zander.core.change.place.FolderTimes;
import zander.core.change.place.HoldingFolder;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch;
import zander.core.files.RemoteBatch.Renaming;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.FolderTime;
import zander.core.journal.Journal;
import zander.core.journal.NewChange;
import zander.core.phrase.FileStep;
import zander.core.work.Cancellation;

/**
 * Moves entries into the holding folder: looked at, written down and renamed together, so that the
 * line's delay is paid a few times for hundreds of them.
 */
final class HoldTask {
  private static final int AT_ONCE = 512;

  private final RemoteFiles files;
  private final Journal journal;
  private final RemotePath home;

  HoldTask(RemoteFiles files, Journal journal, RemotePath home) {
    this.files = files;
    this.journal = journal;
    this.home = home;
  }

  /** One entry on its way. */
  private static final class Going {
    final RemotePath path;
    final FileState state;
    @Nullable RemoteFailure failure;

    Going(RemotePath path, FileState state) {
      this.path = path;
      this.state = state;
    }
  }

  /**
   * @param paths of one folder or of several; each folder's have a place of their own, so that
   *     equal names do not meet
   */
  List<RemoteFailure> hold(List<RemotePath> paths, LongConsumer progress, Cancellation stop)
      throws IOException {
    long held = 0;
    long group = paths.size() > 1 ? journal.newGroup() : 0;
    Map<RemotePath, List<RemotePath>> byFolder = new LinkedHashMap<>();
    List<RemoteFailure> failed = new ArrayList<>();
    for (RemotePath path : paths) {
      if (path.isRoot()) {
        failed.add(DeleteTask.rootRefused());
      } else {
        byFolder.computeIfAbsent(path.parent(), folder -> new ArrayList<>()).add(path);
      }
    }
    for (List<RemotePath> all : byFolder.values()) {
      for (int from = 0; from < all.size(); from += AT_ONCE) {
        List<RemotePath> some = all.subList(from, Math.min(all.size(), from + AT_ONCE));
        stop.throwIfStopped();
        failed.addAll(hold(some, group, 0));
        held += some.size();
        progress.accept(held);
      }
    }
    return failed;
  }

  /**
   * @throws RemoteFailure when it could not be held
   */
  void holdOne(RemotePath path, long group, long undoes) throws IOException {
    List<RemoteFailure> failed = hold(List.of(path), group, undoes);
    if (!failed.isEmpty()) {
      throw failed.get(0);
    }
  }

  private List<RemoteFailure> hold(List<RemotePath> paths, long group, long undoes)
      throws IOException {
    List<RemoteFailure> failed = new ArrayList<>();
    List<Going> going = look(paths, failed);
    if (going.isEmpty()) {
      return failed;
    }
    try {
      // One that cannot be reached by a rename is tried with a place nearer to it.
      new HoldingFolder(files, home)
          .inPlace(
              going.get(0).path.parent(),
              place -> {
                List<Going> left = going.stream().filter(one -> one.failure == null).toList();
                move(left, place, group, undoes);
                boolean anyWent = left.stream().anyMatch(one -> one.failure == null);
                RemoteFailure first =
                    left.stream()
                        .map(one -> one.failure)
                        .filter(Objects::nonNull)
                        .findFirst()
                        .orElse(null);
                if (!anyWent && first != null && HoldingFolder.mayReachAnother(first)) {
                  left.forEach(one -> one.failure = null);
                  throw first;
                }
                if (!anyWent) {
                  files.removeFolders(List.of(place));
                }
                return place;
              });
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      going.forEach(
          one ->
              one.failure =
                  one.failure != null
                      ? one.failure
                      : new RemoteFailure(e.reason(), FileStep.DELETE, one.path, e.detail(), e));
    }
    going.stream().map(one -> one.failure).filter(Objects::nonNull).forEach(failed::add);
    return failed;
  }

  private List<Going> look(List<RemotePath> paths, List<RemoteFailure> failed) throws IOException {
    List<RemoteBatch.Look> looks = files.batch().lookAtThemselves(paths);
    List<Going> going = new ArrayList<>();
    for (int i = 0; i < paths.size(); i++) {
      RemotePath path = paths.get(i);
      try {
        going.add(new Going(path, state(path, looks.get(i).orThrow())));
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
        failed.add(e);
      }
    }
    return going;
  }

  private FileState state(RemotePath path, RemoteAttributes is) throws IOException {
    FileState state = FileState.of(is);
    return is.kind() == FileKind.LINK ? state.withTarget(files.readLink(path)) : state;
  }

  private void move(List<Going> going, RemotePath place, long group, long undoes)
      throws IOException {
    List<NewChange> changes = new ArrayList<>();
    List<Renaming> renamings = new ArrayList<>();
    for (Going one : going) {
      RemotePath held = place.child(one.path.wireName());
      changes.add(
          NewChange.of(ChangeKind.DELETE, one.path)
              .to(held)
              .states(one.state, null)
              .group(group)
              .undoes(undoes));
      // The place is new, closed to others and for one folder, so the name is free.
      renamings.add(new Renaming(one.path, held, files.renamesOver()));
    }
    FolderTimes times = FolderTimes.before(files, going.get(0).path.parent());
    List<Journal.Pending> pending = journal.begin(changes);
    List<RemoteFailure> failures;
    List<FolderTime> touched;
    try {
      failures = files.batch().rename(renamings);
      touched = times.after();
    } catch (IOException e) {
      for (Journal.Pending one : pending) {
        one.failed(e);
      }
      throw e;
    }
    boolean first = true;
    for (int i = 0; i < going.size(); i++) {
      going.get(i).failure = failures.get(i);
      if (failures.get(i) != null) {
        pending.get(i).failed(failures.get(i));
      } else {
        // Put back from the last to the first, the first finds the time that was there before.
        pending.get(i).done(null, first ? touched : FolderTimes.unchanged(touched));
        first = false;
      }
    }
  }
}
