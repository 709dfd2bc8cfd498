package zander.core.change.save;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.CancellationException;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;

/**
 * Saves a file so that nothing of it changes but its content, and that the whole old or the whole
 * new one is never lost.
 *
 * <p>The new content is written beside the target under a name of its own, gets what the old one
 * has besides content ({@link FileMetadata}), is put on the disk where the server can, and is
 * renamed over it (POSIX {@code rename} replaces in one step). Before the rename the old one is
 * read once more: when it is not what was opened, nothing is changed.
 *
 * <p>A server that cannot rename over a file ({@link RemoteFiles#renamesOver}) has the old one
 * moved aside and the new one moved in: for a moment the name is free, and a break in it is mended
 * by {@link zander.core.change.Recovery} from what the journal knows.
 *
 * <p>Where a new file would not be what the old one is, the new content is written into the old one
 * instead ({@link InPlaceWrite}), once it lies complete on the server.
 */
public final class AtomicSave {
  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;
  private final StagedCheck before;
  private final StagedCheck after;

  public AtomicSave(RemoteFiles files, Commands commands, Journal journal) {
    this(files, commands, journal, StagedCheck.NONE, StagedCheck.NONE);
  }

  private AtomicSave(
      RemoteFiles files,
      Commands commands,
      Journal journal,
      StagedCheck before,
      StagedCheck after) {
    this.files = files;
    this.commands = commands;
    this.journal = journal;
    this.before = before;
    this.after = after;
  }

  /** The same with a check that the new content must stand before it counts. */
  public AtomicSave trying(StagedCheck wanted) {
    return new AtomicSave(files, commands, journal, wanted, after);
  }

  /**
   * The same with a check of all that the file belongs to, which is run when the new content is in
   * its place; the version before is put back when it does not stand it.
   */
  public AtomicSave tryingAfter(StagedCheck wanted) {
    return new AtomicSave(files, commands, journal, before, wanted);
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
    RemoteFiles.WholeFile read = files.readWhole(path, limit);
    return new Opened(
        FileVersion.of(path, read.real(), read.attributes(), read.content()), read.content());
  }

  /**
   * Whether a file cannot be saved by this account, as far as its server tells; waits.
   *
   * @throws IOException when the server has no room to ask it
   */
  public boolean isReadOnly(FileVersion opened) throws IOException {
    return FileMetadata.askIfRoom(commands, opened.real()).isReadOnly();
  }

  /** What a save may do beyond replacing the content. */
  public enum Allow {
    /**
     * The file may belong to another owner or group afterwards, when this account cannot help it.
     */
    OWNER_CHANGE,
    /** What somebody else wrote meanwhile may be replaced; the journal keeps it. */
    REPLACE_OTHERS_CHANGE,
    /** It may lose its other names, its ACL or its attributes. */
    METADATA_CHANGE
  }

  /**
   * A save that was made.
   *
   * @param version the version now on the server
   * @param inPlace whether it was written into the file that was there
   * @param replaced the content before
   * @param entry its number in the journal
   */
  public record Saved(FileVersion version, boolean inPlace, byte[] replaced, long entry) {}

  /**
   * Saves.
   *
   * @param opened the version the new content is based on
   * @throws SaveFailure saying at which step, and in which state the server's file is
   * @throws NotPutBack when the check after it refused it, and the version before is not back
   */
  public Saved save(FileVersion opened, byte[] content, List<Allow> allowed)
      throws SaveFailure, NotPutBack {
    Saved saved = save(opened, content, allowed, 0, 0);
    try {
      after.run(commands, saved.version().real(), saved.version().real());
    } catch (IOException | CancellationException e) {
      takeBack(saved, allowed, e);
      throw new SaveFailure(
          SaveFailure.Step.TRY_AFTER,
          e instanceof CheckRefused ? SaveFailure.Reason.CHECK_REFUSED : SaveFailure.Reason.REFUSED,
          SaveFailure.ServerState.OLD,
          opened,
          null,
          e);
    }
    return saved;
  }

  /**
   * Brings the content before a save back; the new one stays in the journal. What another wrote
   * since is never replaced by it.
   *
   * @param allowed what the save was allowed
   */
  public Saved putBack(Saved saved, List<Allow> allowed) throws SaveFailure {
    List<Allow> still = allowed.stream().filter(one -> one != Allow.REPLACE_OTHERS_CHANGE).toList();
    // What was there before is not checked: it is to be there again whatever it is.
    return new AtomicSave(files, commands, journal)
        .save(saved.version(), saved.replaced(), still, 0, saved.entry());
  }

  /**
   * The same for a save that must not stand.
   *
   * @param refused why
   */
  public void takeBack(Saved saved, List<Allow> allowed, Exception refused) throws NotPutBack {
    try {
      putBack(saved, allowed);
    } catch (SaveFailure e) {
      throw new NotPutBack(saved, refused, e);
    }
  }

  /**
   * The same as a part of something larger, which no check looks at afterwards.
   *
   * @param group the number that changes of one action share in the journal; 0 for none
   * @param undoes the entry of the journal that this puts back; 0 for none
   */
  public Saved save(
      FileVersion opened, byte[] content, List<Allow> allowed, long group, long undoes)
      throws SaveFailure {
    return new SaveRun(
            files,
            commands,
            journal,
            new SaveRun.Wanted(opened, content, allowed, group, undoes, before))
        .run();
  }
}
