package zander.core.change;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.LongConsumer;
import zander.core.change.place.FolderTimes;
import zander.core.change.place.FreeName;
import zander.core.change.place.Renames;
import zander.core.change.place.TemporaryName;
import zander.core.connect.command.Commands;
import zander.core.facts.TreeMark;
import zander.core.files.DiskSpace;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.FolderTime;
import zander.core.journal.Journal;
import zander.core.journal.NewChange;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.rights.Mode;
import zander.core.work.Cancellation;

/**
 * Makes, renames, moves, copies and links on a server. Each is whole or not at all, never replaces
 * what is there, and is in the journal before it is done.
 */
public final class RemoteChanges {
  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;

  public RemoteChanges(RemoteFiles files, Commands commands, Journal journal) {
    this.files = files;
    this.commands = commands;
    this.journal = journal;
  }

  private interface Work {
    void run() throws IOException;
  }

  private void journalled(NewChange change, RemotePath made, Work work) throws IOException {
    Journal.Pending pending = journal.begin(change);
    try {
      List<RemotePath> folders = new ArrayList<>(List.of(change.path().parent()));
      if (change.to() != null) {
        folders.add(change.to().parent());
      }
      FolderTimes times = FolderTimes.before(files, folders.toArray(RemotePath[]::new));
      work.run();
      FileState now = withMark(change.kind(), made, state(made));
      List<FolderTime> touched = times.after();
      pending.done(now, touched);
    } catch (IOException | RuntimeException e) {
      pending.failed(e);
      throw e;
    }
  }

  /** What was made with all that is in it is looked at as a whole before it is put back. */
  private FileState withMark(ChangeKind kind, RemotePath made, FileState now) throws IOException {
    boolean tree = kind == ChangeKind.COPY || kind == ChangeKind.UNPACK;
    return tree && now.attributes().isFolder()
        ? now.withDigest(new TreeMark(files, commands).of(made))
        : now;
  }

  private FileState state(RemotePath path) throws IOException {
    RemoteAttributes now = files.lookAtItself(path);
    FileState state = FileState.of(now);
    return now.kind() == FileKind.LINK ? state.withTarget(files.readLink(path)) : state;
  }

  /** Makes an empty file with the rights that the server gives new files. */
  public void makeFile(RemotePath path) throws IOException {
    journalled(
        NewChange.of(ChangeKind.MAKE_FILE, path),
        path,
        () -> files.create(path, new Mode(0666)).close());
  }

  /**
   * Makes a folder, or a tree of folders from one typed path: {@code 2026/11/photos}. Those that
   * are there already are gone into.
   *
   * @param typed relative to the base, or absolute
   * @return the folders that were made, the highest first; empty when all were there
   * @throws IllegalArgumentException when it is no path
   */
  public List<RemotePath> makeFolders(RemotePath base, String typed) throws IOException {
    RemotePath goal = base.resolve(typed);
    List<RemotePath> chain = goal.chain();
    List<RemoteAttributes> there = files.lookAll(chain);
    List<RemotePath> missing = new ArrayList<>();
    for (int i = 0; i < chain.size(); i++) {
      if (there.get(i) == null) {
        missing.add(chain.get(i));
      }
    }
    long group = missing.size() > 1 ? journal.newGroup() : 0;
    for (RemotePath folder : missing) {
      journalled(
          NewChange.of(ChangeKind.MAKE_FOLDER, folder).group(group),
          folder,
          () -> files.makeFolder(folder, new Mode(0777)));
    }
    if (missing.isEmpty() && !files.lookThrough(goal).isFolder()) {
      throw new RemoteFailure(
          Reason.ALREADY_EXISTS, FileStep.MAKE_FOLDER, goal, FilePhrase.EXISTS.of(), null);
    }
    return missing;
  }

  /**
   * @param wireTarget what it points to, as it will stand in the link
   */
  public void makeLink(RemotePath link, String wireTarget) throws IOException {
    journalled(
        NewChange.of(ChangeKind.MAKE_LINK, link).note(WireName.toText(wireTarget)),
        link,
        () -> files.makeLink(link, wireTarget));
  }

  /**
   * Gives another name, or another place on the same file system, or both.
   *
   * @throws RemoteFailure with {@code ALREADY_EXISTS} when the name is taken
   */
  public void rename(RemotePath from, RemotePath to) throws IOException {
    rename(from, to, 0);
  }

  private void rename(RemotePath from, RemotePath to, long group) throws IOException {
    if (isAtOrBelow(to, from)) {
      throw new RemoteFailure(
          Reason.FAILED, FileStep.MOVE, from, FilePhrase.INTO_ITSELF.of(), null);
    }
    FileState before = state(from);
    journalled(
        NewChange.of(ChangeKind.RENAME, from).to(to).states(before, before).group(group),
        to,
        () -> Renames.toFree(files, from, to));
  }

  private static boolean isAtOrBelow(RemotePath path, RemotePath folder) {
    return path.chain().contains(folder);
  }

  /**
   * Moves entries into a folder. Onto another file system it copies, and then holds the originals.
   *
   * @param deleting where the originals go in that case
   */
  public void move(
      List<RemotePath> paths,
      RemotePath folder,
      DeleteTask deleting,
      LongConsumer progress,
      Cancellation stop)
      throws IOException {
    long group = paths.size() > 1 ? journal.newGroup() : 0;
    for (RemotePath path : paths) {
      stop.throwIfStopped();
      RemotePath goal = folder.child(path.wireName());
      if (!isOneFileSystem(path.parent(), folder) || !renamed(path, goal, group)) {
        long both = group == 0 ? journal.newGroup() : group;
        copy(path, goal, both, progress, stop);
        deleting.holdFor(path, both, 0);
      }
    }
  }

  /**
   * Whether it could be renamed: between bind mounts of one file system it cannot, and nothing
   * tells them apart before.
   */
  private boolean renamed(RemotePath path, RemotePath goal, long group) throws IOException {
    try {
      rename(path, goal, group);
      return true;
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.FAILED && !isAtOrBelow(goal, path)) {
        return false;
      }
      throw e;
    }
  }

  private boolean isOneFileSystem(RemotePath one, RemotePath other) throws IOException {
    DiskSpace here = files.space(one);
    DiskSpace there = files.space(other);
    return here == null || there == null || here.id() == there.id();
  }

  /** Whether copies made now go through this computer, because the server cannot do it alone. */
  public boolean copiesThroughHere() {
    return CopyTask.way(files, commands) == CopyTask.Way.THROUGH_HERE;
  }

  /**
   * Copies entries into a folder, each whole or not at all.
   *
   * @param progress told how many bytes went through this computer
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  public void copy(
      List<RemotePath> paths, RemotePath folder, LongConsumer progress, Cancellation stop)
      throws IOException {
    long group = paths.size() > 1 ? journal.newGroup() : 0;
    for (RemotePath path : paths) {
      copy(path, folder.child(path.wireName()), group, progress, stop);
    }
  }

  /** Copies an entry beside itself under the first free name, and gives that. */
  public RemotePath duplicate(RemotePath path, LongConsumer progress, Cancellation stop)
      throws IOException {
    RemotePath goal = FreeName.beside(files, path);
    copy(path, goal, 0, progress, stop);
    return goal;
  }

  private void copy(
      RemotePath from, RemotePath to, long group, LongConsumer progress, Cancellation stop)
      throws IOException {
    if (isAtOrBelow(to, from)) {
      throw new RemoteFailure(
          Reason.FAILED, FileStep.COPY, from, FilePhrase.INTO_ITSELF.of(), null);
    }
    if (Renames.exists(files, to)) {
      throw new RemoteFailure(
          Reason.ALREADY_EXISTS, FileStep.COPY_TO, to, FilePhrase.EXISTS.of(), null);
    }
    whole(
        NewChange.of(ChangeKind.COPY, to).note(from.text()).group(group),
        part -> new CopyTask(files, commands, progress, stop).copy(from, part));
  }

  /** Makes something under a temporary name. */
  public interface Making {
    void at(RemotePath part) throws IOException;
  }

  /**
   * Lets something new be made beside its place and puts it there when it is whole; what is made of
   * it is removed when it fails.
   */
  public void whole(NewChange change, Making making) throws IOException {
    RemotePath part = TemporaryName.beside(change.path());
    journalled(
        change.part(part),
        change.path(),
        () -> {
          try {
            making.at(part);
            Renames.toFree(files, part, change.path());
          } catch (IOException | RuntimeException e) {
            removeQuietly(part, e);
            throw e;
          }
        });
  }

  private void removeQuietly(RemotePath part, Exception failure) {
    try {
      new TreeRemoval(files, commands, count -> {}, new Cancellation()).remove(part);
    } catch (IOException | RuntimeException e) {
      // Not made yet, or the line is gone: the journal has its name, and the next start finds it.
      failure.addSuppressed(e);
    }
  }
}
