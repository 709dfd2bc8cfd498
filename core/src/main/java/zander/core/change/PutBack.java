package zander.core.change;

import java.io.IOException;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Set;
import java.util.function.LongConsumer;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import zander.core.change.place.FolderTimes;
import zander.core.change.place.HoldingFolder;
import zander.core.change.place.Renames;
import zander.core.change.place.TemporaryName;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.FileVersion;
import zander.core.connect.command.Commands;
import zander.core.facts.TreeMark;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.journal.NewChange;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;
import zander.core.work.Cancellation;

/**
 * Puts changes of the journal back. It looks first whether something else changed meanwhile; what
 * it does is itself a change in the journal and can be put back.
 */
public final class PutBack {
  /** Larger files are not for the editor either, so no save of one is in the journal. */
  private static final long LARGEST = 64L << 20;

  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;
  private final DeleteTask deleting;

  /**
   * @param home where what is taken away is held
   */
  public PutBack(RemoteFiles files, Commands commands, Journal journal, RemotePath home) {
    this.files = files;
    this.journal = journal;
    this.commands = commands;
    this.deleting = new DeleteTask(files, commands, journal, home);
  }

  /** Whether and how an entry can be put back. */
  public enum Verdict {
    READY,
    /** What it left was changed since; putting back would take that away as well. */
    CHANGED_SINCE,
    /** Something else has the name it would go back to. */
    NAME_TAKEN,
    /** What it left is not there any more. */
    GONE,
    /** The version before was not kept, or was let go. */
    NOT_KEPT,
    /** It was deleted for good. */
    FOR_GOOD,
    ALREADY_PUT_BACK,
    NEVER_DONE;

    /** Whether it can be done, asked once more or not. */
    public boolean isPossible() {
      return this == READY || this == CHANGED_SINCE;
    }
  }

  /** Looks how things stand; changes nothing. */
  public Verdict look(JournalEntry asked) throws IOException {
    if (!asked.isDone()) {
      return Verdict.NEVER_DONE;
    }
    if (journal.isPutBack(asked)) {
      return Verdict.ALREADY_PUT_BACK;
    }
    JournalEntry entry = journal.last(asked);
    return switch (entry.kind()) {
      case SAVE -> saved(entry);
      case RIGHTS, RIGHTS_OF_TREE, ACCESS_LIST, ACCESS_LISTS_OF_TREE ->
          new RightsBack(files, commands, journal).look(entry);
      case RENAME, DELETE -> renamed(entry);
      case PURGE -> Verdict.FOR_GOOD;
      case REPLACE -> replaced(entry);
      case MAKE_FILE, MAKE_FOLDER, MAKE_LINK, COPY, SEND_UP, PACK, UNPACK, FETCH -> made(entry);
    };
  }

  /**
   * What has to be put back, newest first, so that all is as it was at a moment: done since, and
   * not undone within that time already.
   *
   * @param moment milliseconds since 1970-01-01 UTC
   */
  public List<JournalEntry> since(long moment) {
    List<JournalEntry> all =
        journal.entries().stream().filter(e -> e.isDone() && e.at() >= moment).toList();
    Set<Long> within = all.stream().map(JournalEntry::id).collect(Collectors.toSet());
    return all.stream()
        .filter(first -> !within.contains(first.undoes()) && !journal.isPutBack(first))
        .map(journal::last)
        .filter(last -> last.kind() != ChangeKind.PURGE)
        .sorted(Comparator.comparingLong(JournalEntry::id).reversed())
        .toList();
  }

  private @Nullable RemoteAttributes orNull(RemotePath path) throws IOException {
    try {
      return files.look(path);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.NO_SUCH_FILE) {
        return null;
      }
      throw e;
    }
  }

  private Verdict saved(JournalEntry entry) throws IOException {
    RemoteAttributes now = orNull(entry.path());
    if (now == null) {
      return Verdict.GONE;
    }
    if (!journal.keepsContent(entry)) {
      return Verdict.NOT_KEPT;
    }
    byte[] content = files.readAll(entry.path(), LARGEST);
    String digest = HexFormat.of().formatHex(FileVersion.digestOf(content));
    return digest.equals(entry.became().digest()) ? Verdict.READY : Verdict.CHANGED_SINCE;
  }

  private Verdict renamed(JournalEntry entry) throws IOException {
    RemoteAttributes now = orNull(entry.goal());
    if (now == null) {
      return Verdict.GONE;
    }
    if (orNull(entry.path()) != null) {
      return Verdict.NAME_TAKEN;
    }
    boolean same = now.isFolder() ? entry.was().kind() == now.kind() : isSame(entry.before(), now);
    return same ? Verdict.READY : Verdict.CHANGED_SINCE;
  }

  private static boolean isSame(@Nullable FileState state, RemoteAttributes now) {
    return state == null || state.looksLike(now);
  }

  private Verdict replaced(JournalEntry entry) throws IOException {
    RemoteAttributes now = orNull(entry.path());
    boolean held = entry.to() != null && orNull(entry.to()) != null;
    if (!held && entry.contentId() == null && entry.was().target() == null) {
      return Verdict.NOT_KEPT;
    }
    if (!held && entry.contentId() != null && !journal.keepsContent(entry)) {
      return Verdict.NOT_KEPT;
    }
    return now == null
        ? Verdict.GONE
        : isSame(entry.after(), now) ? Verdict.READY : Verdict.CHANGED_SINCE;
  }

  private Verdict made(JournalEntry entry) throws IOException {
    RemoteAttributes now = orNull(entry.path());
    if (now == null) {
      return Verdict.GONE;
    }
    if (now.isFolder() && entry.kind() == ChangeKind.MAKE_FOLDER) {
      // Its time is no witness: what was put into it may have been taken out again.
      return files.list(entry.path(), portion -> {}).isEmpty()
          ? Verdict.READY
          : Verdict.CHANGED_SINCE;
    }
    String mark = now.isFolder() && entry.after() != null ? entry.after().digest() : null;
    boolean same =
        mark == null
            ? isSame(entry.after(), now)
            : new TreeMark(files, commands).isStill(entry.path(), mark);
    return same ? Verdict.READY : Verdict.CHANGED_SINCE;
  }

  /**
   * Puts an entry back.
   *
   * @param evenIfChanged whether to go on when something was changed since; nothing of that is
   *     lost: a text is in the journal, a file in the holding folder
   * @return what was found; anything not possible was not done
   */
  public Verdict run(JournalEntry asked, boolean evenIfChanged) throws IOException {
    Verdict verdict = look(asked);
    JournalEntry entry = journal.last(asked);
    if (!verdict.isPossible() || (verdict == Verdict.CHANGED_SINCE && !evenIfChanged)) {
      return verdict;
    }
    FolderTimes.Chain times = FolderTimes.chain(files, List.of(entry));
    apply(entry);
    times.giveBack();
    return Verdict.READY;
  }

  /** Puts one back that was found ready; the times of its folders are left to the caller. */
  void apply(JournalEntry entry) throws IOException {
    switch (entry.kind()) {
      case SAVE -> saveBefore(entry, contentBefore(entry));
      case RIGHTS, RIGHTS_OF_TREE, ACCESS_LIST, ACCESS_LISTS_OF_TREE ->
          new RightsBack(files, commands, journal).apply(entry);
      case RENAME, DELETE -> renameBack(entry);
      case REPLACE -> bringOriginal(entry);
      default -> deleting.holdFor(entry.path(), 0, entry.id());
    }
  }

  /**
   * What became of one of many.
   *
   * @param failure why it could not be done; {@code null} when the verdict says it all
   */
  public record Outcome(JournalEntry entry, Verdict verdict, @Nullable RemoteFailure failure) {
    public boolean isDone() {
      return failure == null && verdict == Verdict.READY;
    }
  }

  /**
   * Puts many back, those that do not touch each other at the same time. One that was changed since
   * stays as it is; one that fails does not stop the rest.
   *
   * @param all the newest first
   * @param progress told how many are through, on any thread
   * @return what became of each, in the same order
   * @throws java.util.concurrent.CancellationException when it was stopped, between two of them
   */
  public List<Outcome> runAll(List<JournalEntry> all, LongConsumer progress, Cancellation stop)
      throws IOException {
    return new PutBackMany(files, journal, this).run(all, progress, stop);
  }

  private byte[] contentBefore(JournalEntry entry) throws IOException {
    byte[] content = journal.contentBefore(entry);
    if (content == null) {
      throw new ExplainedException(KeptPhrase.BEFORE_NOT_KEPT.of());
    }
    return content;
  }

  private void saveBefore(JournalEntry entry, byte[] content) throws IOException {
    AtomicSave saver = new AtomicSave(files, commands, journal);
    AtomicSave.Opened now = saver.open(entry.path(), LARGEST);
    saver.save(now.version(), content, List.of(AtomicSave.Allow.OWNER_CHANGE), 0, entry.id());
    RemoteAttributes was = entry.was().attributes();
    RemoteAttributes is = files.look(entry.path());
    if (is.uid() != was.uid() || is.gid() != was.gid()) {
      try {
        files.setOwner(entry.path(), was.uid(), was.gid());
        files.setMode(entry.path(), was.mode());
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
        // The save that is put back could not keep it either, and was allowed to.
      }
    }
    files.setTimes(entry.path(), is.accessed(), was.modified());
  }

  private void renameBack(JournalEntry entry) throws IOException {
    RemotePath goal = entry.goal();
    HoldingFolder.check(files, goal);
    if (HoldingFolder.isHeld(entry.path()) && orNull(entry.path().parent()) == null) {
      // Its place there went when it was put back: it gets a new one.
      deleting.holdFor(goal, 0, entry.id());
      return;
    }
    FileState now = FileState.of(files.look(goal));
    Journal.Pending pending =
        journal.begin(
            NewChange.of(ChangeKind.RENAME, goal)
                .to(entry.path())
                .states(now, now)
                .undoes(entry.id()));
    try {
      files.lookAtItself(goal);
      FolderTimes times = FolderTimes.before(files, goal.parent(), entry.path().parent());
      Renames.toFree(files, goal, entry.path());
      pending.done(null, times.after());
    } catch (IOException e) {
      pending.failed(e);
      throw e;
    }
    if (HoldingFolder.isHeld(goal)) {
      files.removeFolders(List.of(goal.parent()));
    }
  }

  private void bringOriginal(JournalEntry entry) throws IOException {
    byte[] content = entry.contentId() == null ? null : journal.contentBefore(entry);
    if (content != null) {
      saveBefore(entry, content);
      return;
    }
    RemotePath place = deleting.newPlace(entry.path().parent());
    RemotePath kept = place.child(entry.path().wireName());
    RemoteAttributes now = files.look(entry.path());
    FileState state = FileState.of(now);
    boolean link = now.kind() == FileKind.LINK;
    boolean linked = !link && hasSecondName(entry.path(), kept);
    boolean inSteps = !link && !(linked && files.renamesOver());
    Journal.Pending pending =
        journal.begin(
            NewChange.of(ChangeKind.REPLACE, entry.path())
                .to(link ? null : kept)
                .states(
                    link ? state.withTarget(files.readLink(entry.path())) : state, entry.before())
                .undoes(entry.id()));
    try {
      String target = entry.was().target();
      if (target != null) {
        RemotePath part = TemporaryName.beside(entry.path());
        files.makeLink(part, target);
        put(part, entry.path(), kept, inSteps);
      } else {
        HoldingFolder.check(files, entry.goal());
        put(entry.goal(), entry.path(), kept, inSteps);
      }
      pending.done(FileState.of(files.look(entry.path())), List.of());
    } catch (IOException e) {
      pending.failed(e);
      throw e;
    }
  }

  private void put(RemotePath from, RemotePath to, RemotePath kept, boolean inSteps)
      throws IOException {
    if (inSteps) {
      Renames.inSteps(files, from, to, kept);
    } else {
      files.renameOver(from, to);
    }
  }

  /** Gives what is about to be replaced one more name, where the server and its disk can. */
  private boolean hasSecondName(RemotePath path, RemotePath name) throws IOException {
    try {
      files.hardLink(path, name);
      return true;
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return false;
    }
  }
}
