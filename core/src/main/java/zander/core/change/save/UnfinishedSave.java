package zander.core.change.save;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.change.place.HoldingFolder;
import zander.core.change.place.Renames;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;

/**
 * What a break left of a save. The journal has the old content, and what lies on the server the new
 * one, so that either can be brought about. Everything here waits.
 */
public final class UnfinishedSave {
  private static final long LARGEST = 64L << 20;

  /** Where it stands. */
  public enum State {
    DONE,
    /** The old file, and nothing beside it. */
    NOT_DONE,
    /** The old file, and new content beside it, whole or not. */
    STAGED,
    /** The old file has moved aside, and the new one is not in its place yet. */
    MOVED_ASIDE,
    /** The new content was being written into the old file. */
    HALF_WRITTEN,
    /** Neither: somebody else was there. */
    OTHER
  }

  /**
   * @param mayFinish whether the new content is there to finish it from
   * @param mayUndo whether there is something to take away
   */
  public record Found(State state, boolean mayFinish, boolean mayUndo) {}

  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;

  public UnfinishedSave(RemoteFiles files, Commands commands, Journal journal) {
    this.files = files;
    this.commands = commands;
    this.journal = journal;
  }

  /** Looks; changes nothing. */
  public Found look(JournalEntry entry) throws IOException {
    boolean part = entry.part() != null && Renames.exists(files, entry.part());
    boolean aside = entry.to() != null && Renames.exists(files, entry.to());
    byte[] now = Renames.exists(files, entry.path()) ? read(entry.path()) : null;
    if (now != null && isNew(entry, now)) {
      return new Found(State.DONE, false, false);
    }
    byte[] staged = part ? read(entry.staged()) : null;
    boolean whole = staged != null && isNew(entry, staged);
    if (now == null && aside) {
      boolean old = FileVersion.digestText(read(entry.goal())).equals(entry.was().digest());
      return new Found(State.MOVED_ASIDE, whole, old);
    }
    if (now != null && FileVersion.digestText(now).equals(entry.was().digest())) {
      return new Found(part ? State.STAGED : State.NOT_DONE, whole, part);
    }
    if (now != null
        && staged != null
        && whole
        && isBetween(now, journal.contentBefore(entry), staged)) {
      return new Found(State.HALF_WRITTEN, true, true);
    }
    return new Found(State.OTHER, false, part);
  }

  private byte[] read(RemotePath path) throws IOException {
    return files.readAll(path, LARGEST);
  }

  private static boolean isNew(JournalEntry entry, byte[] content) throws IOException {
    return FileVersion.digestText(content).equals(entry.became().digest());
  }

  /** Whether every byte is of the one or the other, whatever the order they were written in. */
  static boolean isBetween(byte[] now, byte @Nullable [] old, byte[] made) {
    if (old == null || now.length < Math.min(old.length, made.length)) {
      return false;
    }
    for (int i = 0; i < now.length; i++) {
      boolean known =
          (i < old.length && now[i] == old[i]) || (i < made.length && now[i] == made[i]);
      if (!known) {
        return false;
      }
    }
    return true;
  }

  /**
   * Brings it to its end, or takes away what is left of one that had come there.
   *
   * @throws IllegalArgumentException when there is nothing to finish it from
   */
  public void finish(JournalEntry entry) throws IOException {
    Found found = look(entry);
    if (found.state() != State.DONE) {
      if (!found.mayFinish()) {
        throw new IllegalArgumentException("nothing to finish it from");
      }
      bringAbout(entry, found.state());
    }
    takeAway(entry.part());
    takeAway(entry.to());
  }

  private void bringAbout(JournalEntry entry, State state) throws IOException {
    byte[] made = read(entry.staged());
    switch (state) {
      case MOVED_ASIDE -> {
        files.setOwner(
            entry.staged(), entry.was().attributes().uid(), entry.was().attributes().gid());
        files.setMode(entry.staged(), entry.was().mode());
        files.rename(entry.staged(), entry.path());
      }
      case HALF_WRITTEN -> {
        InPlaceWrite.Result result =
            new InPlaceWrite(files, commands)
                .write(entry.path(), read(entry.path()), entry.staged(), made);
        if (result != InPlaceWrite.Result.WRITTEN) {
          throw new ExplainedException(KeptPhrase.NOT_AS_LOOKED_AT.of());
        }
      }
      default -> {
        // As another save of the same, so that nothing but the content changes.
        AtomicSave again = new AtomicSave(files, commands, Journal.NONE);
        again.save(again.open(entry.path(), LARGEST).version(), made, List.of());
      }
    }
  }

  /** Takes away what was done of it. */
  public void undo(JournalEntry entry) throws IOException {
    Found found = look(entry);
    if (found.state() == State.MOVED_ASIDE && found.mayUndo()) {
      files.rename(entry.goal(), entry.path());
    }
    if (found.state() == State.HALF_WRITTEN
        && !new InPlaceWrite(files, commands)
            .writeBack(entry.path(), requireNonNull(journal.contentBefore(entry)))) {
      throw new ExplainedException(KeptPhrase.NOT_WRITTEN_BACK.of());
    }
    if (found.mayUndo()) {
      takeAway(entry.part());
    }
  }

  private void takeAway(@Nullable RemotePath left) throws IOException {
    if (left == null) {
      return;
    }
    files.removeFiles(List.of(left));
    if (HoldingFolder.isHeld(left)) {
      files.removeFolders(List.of(left.parent()));
    }
  }
}
