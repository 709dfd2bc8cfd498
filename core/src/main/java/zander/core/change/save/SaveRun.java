package zander.core.change.save;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import org.jspecify.annotations.Nullable;
import zander.core.change.place.Renames;
import zander.core.change.place.TemporaryName;
import zander.core.change.save.AtomicSave.Allow;
import zander.core.change.save.AtomicSave.Saved;
import zander.core.change.save.SaveFailure.ServerState;
import zander.core.change.save.SaveFailure.Step;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.RemoteWriter;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.FolderTime;
import zander.core.journal.Journal;
import zander.core.journal.NewChange;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.JournalPhrase;
import zander.core.work.Workers;

/** One save. */
final class SaveRun {

  /** What is to be saved; see {@link AtomicSave#save}. */
  record Wanted(
      FileVersion before,
      byte[] content,
      List<Allow> allowed,
      long group,
      long undoes,
      StagedCheck check) {
    boolean may(Allow what) {
      return allowed.contains(what);
    }
  }

  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;
  private final Wanted wanted;
  private final RemotePath target;
  private Step step = Step.CHECK;
  private ServerState state = ServerState.OLD;
  private FileMetadata metadata = FileMetadata.UNKNOWN;
  private byte[] replaced = {};

  /** The folder around, before anything was renamed in it; {@code null} while it is not known. */
  private @Nullable RemoteAttributes folder;

  private @Nullable StagedContent staged;
  private @Nullable RemotePath aside;
  private Journal.@Nullable Pending pending;
  private boolean isTried;

  SaveRun(RemoteFiles files, Commands commands, Journal journal, Wanted wanted) {
    this.files = files;
    this.commands = commands;
    this.journal = journal;
    this.wanted = wanted;
    this.target = wanted.before().real();
  }

  Saved run() throws SaveFailure {
    try {
      RemoteAttributes now = checkAndLearn();
      return mustStay(now) ? inPlace(now) : asNewFile(now);
    } catch (SaveFailure e) {
      throw ended(e);
    } catch (IOException | RuntimeException e) {
      throw ended(explain(e));
    }
  }

  /**
   * Reads what is there now, and meanwhile asks what else the file is.
   *
   * @return what it was before it was read, so that a change during the reading shows later
   */
  private RemoteAttributes checkAndLearn() throws IOException {
    try (Workers asking = new Workers("file-metadata", 1)) {
      Future<FileMetadata> asked = asking.submit(() -> FileMetadata.ask(commands, target));
      RemoteFiles.WholeFile now = checkUnchanged();
      replaced = now.content();
      metadata = known(asked);
      return now.before();
    }
  }

  private static FileMetadata known(Future<FileMetadata> asked) throws IOException {
    try {
      return asked.get();
    } catch (ExecutionException e) {
      // A script that fails is no reason not to save.
      return FileMetadata.UNKNOWN;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
  }

  /** Equal content is no change, whatever its times say. */
  private RemoteFiles.WholeFile checkUnchanged() throws IOException {
    FileVersion before = wanted.before();
    long limit = Math.max(before.attributes().size() * 4, 64L << 20);
    RemoteFiles.WholeFile now;
    try {
      now = files.readWhole(before.asked(), limit);
    } catch (RemoteFailure e) {
      throw e.reason() == Reason.NO_SUCH_FILE ? failure(SaveFailure.Reason.GONE, e) : e;
    }
    boolean same = now.real().equals(target) && before.hasContent(now.content());
    if (!same && !wanted.may(Allow.REPLACE_OTHERS_CHANGE)) {
      throw failure(SaveFailure.Reason.CHANGED_MEANWHILE, null);
    }
    return now.real().equals(target) ? now : files.readWhole(target, limit);
  }

  private boolean mustStay(RemoteAttributes now) throws IOException {
    if (wanted.may(Allow.METADATA_CHANGE)) {
      return false;
    }
    boolean turned = files.othersMayTurn(target);
    // In a folder of others, one of the names may be of a file elsewhere that is not meant.
    if (metadata.links() > 1 && (turned || !metadata.writable())) {
      throw failure(SaveFailure.Reason.METADATA_WOULD_CHANGE, null);
    }
    return metadata.writable()
        && !metadata.capable()
        && (metadata.mustStay(now) || (metadata.extended() && turned));
  }

  private ReplacementFile replacementFile() {
    return new ReplacementFile(
        files, commands, wanted, metadata, requireNonNull(staged), next -> step = next);
  }

  private Saved asNewFile(RemoteAttributes now) throws IOException {
    step = Step.JOURNAL;
    staged = StagedContent.beside(files, target);
    aside = files.renamesOver() ? null : TemporaryName.beside(target);
    pending = journal.begin(change(now));
    ReplacementFile.Made written;
    try {
      written = replacementFile().make(now, around -> folder = around);
    } catch (RemoteFailure e) {
      if (step == Step.CREATE && e.reason() == Reason.PERMISSION_DENIED) {
        return insteadOf(e, now);
      }
      throw e;
    }
    if (written == null) {
      return writeInto(now);
    }
    tryIt();
    step = Step.CHECK_AGAIN;
    RemoteAttributes still =
        written.target() == null ? files.lookThrough(target) : written.target();
    if (still.looksChangedSince(now)) {
      throw failure(SaveFailure.Reason.CHANGED_MEANWHILE, null);
    }
    step = Step.RENAME;
    state = ServerState.OLD_OR_NEW;
    RemoteAttributes after;
    try {
      after = putInPlace(staged.path());
    } catch (RemoteFailure e) {
      // Something is mounted on it, for which there is no status of its own.
      if (e.reason() == Reason.FAILED && aside == null) {
        state = ServerState.OLD;
        return writeInto(now);
      }
      throw e;
    }
    state = ServerState.NEW;
    staged.placed();
    return done(written.file(), after, false);
  }

  /**
   * @param after the folder around as it is now; {@code null} where that is not known
   */
  private Saved done(RemoteAttributes written, @Nullable RemoteAttributes after, boolean same)
      throws IOException {
    step = Step.LOOK_AFTER;
    List<FolderTime> touched =
        folder == null || after == null
            ? List.of()
            : List.of(new FolderTime(target.parent(), folder.modified(), after.modified()));
    requireNonNull(pending)
        .done(FileState.of(written).withDigest(FileVersion.digestText(wanted.content())), touched);
    return saved(written, same);
  }

  private Saved saved(RemoteAttributes now, boolean same) {
    FileVersion version = FileVersion.of(wanted.before().asked(), target, now, wanted.content());
    return new Saved(version, same, replaced, requireNonNull(pending).id());
  }

  /** The new one is whole; from here on the journal can bring it to its end. */
  private @Nullable RemoteAttributes putInPlace(RemotePath made) throws IOException {
    if (aside == null) {
      return files.renameOver(made, target);
    }
    Renames.inSteps(files, made, target, aside);
    try {
      files.removeFile(aside);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      // The save is done; what is left has a name that says what it is.
    }
    return files.lookAll(List.of(target.parent())).get(0);
  }

  private NewChange change(RemoteAttributes now) {
    return NewChange.of(ChangeKind.SAVE, target)
        .states(
            FileState.of(now).withDigest(FileVersion.digestText(replaced)),
            FileState.of(now).withDigest(FileVersion.digestText(wanted.content())))
        .content(replaced)
        .part(requireNonNull(staged).path())
        .to(aside)
        .group(wanted.group())
        .undoes(wanted.undoes());
  }

  private Saved inPlace(RemoteAttributes now) throws IOException {
    step = Step.JOURNAL;
    staged =
        metadata.folderWritable()
            ? StagedContent.beside(files, target)
            : StagedContent.inHome(files, target);
    pending = journal.begin(change(now).note(JournalPhrase.WRITTEN_IN_PLACE));
    step = Step.CREATE;
    RemoteFiles.CreatedFile fresh = staged.create();
    folder = metadata.folderWritable() ? fresh.folder() : null;
    try (RemoteWriter writer = fresh.writer()) {
      step = Step.WRITE;
      writer.write(wanted.content(), 0, wanted.content().length);
      step = Step.SYNC;
      writer.finish();
    }
    return writeInto(now);
  }

  /** The folder takes no new file; the file itself may take the new content. */
  private Saved insteadOf(RemoteFailure refused, RemoteAttributes now) throws IOException {
    try (RemoteWriter writable = files.rewrite(target)) {
      requireNonNull(pending).failed(JournalPhrase.NO_NEW_FILE_BESIDE);
      pending = null;
    } catch (RemoteFailure e) {
      throw e.reason() == Reason.LINE_LOST ? e : refused;
    }
    metadata = metadata.withoutFolder();
    return inPlace(now);
  }

  /** The new content lies complete on the server. */
  private Saved writeInto(RemoteAttributes now) throws IOException {
    StagedContent made = requireNonNull(staged);
    tryIt();
    step = Step.WRITE_IN_PLACE;
    if (metadata.capable() || (hasSetIds(now) && !mayGiveSetIds(now))) {
      throw failure(SaveFailure.Reason.METADATA_WOULD_CHANGE, null);
    }
    state = ServerState.UNFINISHED;
    InPlaceWrite same = new InPlaceWrite(files, commands);
    InPlaceWrite.Result result;
    try {
      result = same.write(target, replaced, made.path(), wanted.content());
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      state = ServerState.OLD;
      throw e.reason() == Reason.PERMISSION_DENIED ? wouldChange(now, e) : e;
    }
    switch (result) {
      case CHANGED -> {
        state = ServerState.OLD;
        throw failure(SaveFailure.Reason.CHANGED_MEANWHILE, null);
      }
      case HALF -> {
        state = same.writeBack(target, replaced) ? ServerState.OLD : ServerState.UNFINISHED;
        throw new RemoteFailure(
            Reason.FAILED, FileStep.WRITE_INTO, target, FilePhrase.WRITING_BROKE.of(), null);
      }
      default -> state = ServerState.NEW;
    }
    try {
      RemoteAttributes written = asBefore(now);
      made.remove();
      return done(
          written, folder == null ? null : files.lookAll(List.of(target.parent())).get(0), true);
    } catch (RemoteFailure e) {
      // It is saved; what was staged is still there, and is looked after as what a break left.
      requireNonNull(pending).lost();
      return saved(now, true);
    }
  }

  /** Once, and before anything of the old one is touched. */
  private void tryIt() throws IOException {
    if (isTried) {
      return;
    }
    step = Step.TRY;
    try {
      wanted.check().run(commands, requireNonNull(staged).path(), target);
    } catch (CheckRefused e) {
      throw failure(SaveFailure.Reason.CHECK_REFUSED, e);
    }
    isTried = true;
  }

  private static boolean hasSetIds(RemoteAttributes file) {
    return (file.mode().bits() & 06000) != 0;
  }

  private boolean mayGiveSetIds(RemoteAttributes file) {
    int account = metadata.account() >= 0 ? metadata.account() : files.uid();
    return account == 0 || account == file.uid();
  }

  /** Writing into a file takes its set-id bits, where one is not root (POSIX write). */
  private RemoteAttributes asBefore(RemoteAttributes old) throws IOException {
    RemoteAttributes written = files.lookThrough(target);
    if (!written.mode().equals(old.mode())) {
      files.setMode(target, old.mode());
      written = files.lookThrough(target);
    }
    return written;
  }

  /** Neither a new file nor this one can be written as it is meant to be. */
  private SaveFailure wouldChange(RemoteAttributes now, RemoteFailure e) {
    boolean owner = !metadata.mayOwn(now) || metadata.equals(FileMetadata.UNKNOWN);
    return failure(
        owner ? SaveFailure.Reason.OWNER_WOULD_CHANGE : SaveFailure.Reason.METADATA_WOULD_CHANGE,
        e);
  }

  private SaveFailure failure(SaveFailure.Reason reason, @Nullable Throwable cause) {
    RemotePath left = staged != null && staged.isMade() ? staged.path() : null;
    return new SaveFailure(step, reason, state, wanted.before(), left, cause);
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
    boolean unknown =
        e.reason() == SaveFailure.Reason.LINE_LOST || e.state() == ServerState.UNFINISHED;
    boolean cleaned = staged == null || !staged.isMade();
    if (staged != null && !unknown) {
      try {
        cleaned = staged.remove();
      } catch (IOException | RuntimeException left) {
        e.addSuppressed(left);
      }
    }
    try {
      if (pending != null && unknown) {
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
            wanted.before(),
            null,
            e.getCause() == null ? e : e.getCause())
        : e;
  }
}
