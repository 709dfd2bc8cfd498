package zander.core.change;

import java.io.IOException;
import java.util.List;
import java.util.OptionalInt;
import zander.core.change.place.Renames;
import zander.core.change.rights.AccessListChange;
import zander.core.change.rights.AccessListTree;
import zander.core.change.rights.TreeRightsTask;
import zander.core.change.save.UnfinishedSave;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.phrase.JournalPhrase;
import zander.core.work.Cancellation;

/**
 * After a crash or a kill: looks on the server what became of the changes that were under way, and
 * finishes each or takes its half away.
 */
public final class Recovery {
  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;

  public Recovery(RemoteFiles files, Commands commands, Journal journal) {
    this.files = files;
    this.commands = commands;
    this.journal = journal;
  }

  /** What became of a change. */
  public enum State {
    /** It had been done; only its end was not written down. */
    DONE,
    /** Nothing of it had been done. */
    NOT_DONE,
    /** The goal is as before, and what was being made lies beside it, whole or not. */
    PART_LEFT,
    /** Some of it was done: a right but not the other, a part of a tree deleted. */
    HALF,
    /** Neither as before nor as meant: somebody else was there. */
    OTHER
  }

  /**
   * @param mayFinish whether it can be brought to its end from what is there
   * @param mayUndo whether its half can be taken away
   */
  public record Finding(JournalEntry entry, State state, boolean mayFinish, boolean mayUndo) {}

  /** Looks how a change stands; changes nothing. */
  public Finding look(JournalEntry entry) throws IOException {
    return switch (entry.kind()) {
      case SAVE -> saved(entry);
      case RIGHTS -> rights(entry);
      case ACCESS_LIST, ACCESS_LISTS_OF_TREE -> new Finding(entry, State.HALF, false, true);
      case RIGHTS_OF_TREE -> rightsOfTree(entry);
      case RENAME, DELETE -> renamed(entry);
      case PURGE -> {
        boolean there = Renames.exists(files, entry.path());
        yield new Finding(entry, there ? State.HALF : State.DONE, there, false);
      }
      case MAKE_FILE, MAKE_FOLDER, MAKE_LINK, COPY, SEND_UP, REPLACE, PACK, UNPACK, FETCH ->
          made(entry);
    };
  }

  private UnfinishedSave unfinished() {
    return new UnfinishedSave(files, commands, journal);
  }

  private Finding saved(JournalEntry entry) throws IOException {
    UnfinishedSave.Found found = unfinished().look(entry);
    State state =
        switch (found.state()) {
          case DONE -> State.DONE;
          case NOT_DONE -> State.NOT_DONE;
          case STAGED -> State.PART_LEFT;
          case MOVED_ASIDE, HALF_WRITTEN -> State.HALF;
          case OTHER -> State.OTHER;
        };
    return new Finding(entry, state, found.mayFinish(), found.mayUndo());
  }

  private Finding rights(JournalEntry entry) throws IOException {
    RemoteAttributes now;
    try {
      now = files.lookThrough(entry.path());
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.NO_SUCH_FILE) {
        return new Finding(entry, State.OTHER, false, false);
      }
      throw e;
    }
    if (entry.became().hasRightsOf(now)) {
      return new Finding(entry, State.DONE, false, false);
    }
    boolean asBefore = entry.was().hasRightsOf(now);
    return new Finding(entry, asBefore ? State.NOT_DONE : State.HALF, true, !asBefore);
  }

  private TreeRightsTask treeRights() {
    return new TreeRightsTask(files, commands, journal);
  }

  private Finding rightsOfTree(JournalEntry entry) throws IOException {
    TreeRightsTask.Standing now = treeRights().look(entry);
    if (now.before() == 0) {
      State state = now.other() == 0 ? State.DONE : State.HALF;
      return new Finding(entry, state, state == State.HALF, state == State.HALF);
    }
    boolean half = now.after() + now.other() > 0;
    return new Finding(entry, half ? State.HALF : State.NOT_DONE, true, half);
  }

  private Finding renamed(JournalEntry entry) throws IOException {
    boolean from = Renames.exists(files, entry.path());
    boolean to = Renames.exists(files, entry.goal());
    if (to && !from) {
      return new Finding(entry, State.DONE, false, false);
    }
    boolean place = Renames.exists(files, entry.goal().parent());
    return new Finding(
        entry, from && !to ? State.NOT_DONE : State.OTHER, from && !to && place, false);
  }

  private Finding made(JournalEntry entry) throws IOException {
    boolean movedAside =
        entry.kind() == ChangeKind.REPLACE
            && entry.to() != null
            && !Renames.exists(files, entry.path())
            && Renames.exists(files, entry.to());
    if (movedAside) {
      return new Finding(entry, State.HALF, false, true);
    }
    boolean part = entry.part() != null && Renames.exists(files, entry.part());
    if (part) {
      return new Finding(entry, State.PART_LEFT, false, true);
    }
    RemoteAttributes now = files.lookAll(List.of(entry.path())).get(0);
    boolean done =
        now != null
            && (entry.kind() != ChangeKind.REPLACE
                || entry.before() == null
                || !entry.before().looksLike(now));
    return new Finding(entry, done ? State.DONE : State.NOT_DONE, false, false);
  }

  /** Brings a change to its end, or notes that it had been. */
  public void finish(Finding finding) throws IOException {
    JournalEntry entry = finding.entry();
    if (finding.state() != State.DONE) {
      if (!finding.mayFinish()) {
        throw new IllegalArgumentException("nothing to finish it from");
      }
      switch (entry.kind()) {
        case SAVE -> unfinished().finish(entry);
        case RIGHTS -> setRights(entry.path(), entry.became().attributes());
        case RIGHTS_OF_TREE -> {
          treeRights().goOn(entry, TreeRightsTask.Progress.NONE, new Cancellation());
          return;
        }
        case RENAME, DELETE -> Renames.toFree(files, entry.path(), entry.goal());
        case PURGE ->
            new TreeRemoval(files, commands, count -> {}, new Cancellation()).remove(entry.path());
        default -> throw new IllegalStateException(entry.kind() + " is never finished");
      }
    }
    if (entry.kind() == ChangeKind.SAVE && finding.state() == State.DONE) {
      unfinished().finish(entry);
    }
    journal.settleDone(entry);
  }

  private void setRights(RemotePath path, RemoteAttributes wanted) throws IOException {
    var result =
        new RightsChange(files, Journal.NONE)
            .apply(
                List.of(path),
                OptionalInt.of(wanted.uid()),
                OptionalInt.of(wanted.gid()),
                (mode, folder) -> wanted.mode())
            .get(0);
    if (result.failure() != null) {
      throw result.failure();
    }
  }

  /** Takes away what was done of a change, so that all is as before it. */
  public void undo(Finding finding) throws IOException {
    JournalEntry entry = finding.entry();
    if (finding.mayUndo()) {
      if (entry.kind() == ChangeKind.RIGHTS) {
        setRights(entry.path(), entry.was().attributes());
      } else if (entry.kind() == ChangeKind.RIGHTS_OF_TREE) {
        treeRights().takeBack(entry);
      } else if (entry.kind() == ChangeKind.ACCESS_LIST) {
        new AccessListChange(files, commands, journal).putBack(entry);
      } else if (entry.kind() == ChangeKind.ACCESS_LISTS_OF_TREE) {
        new AccessListTree(files, commands, journal).takeBack(entry);
      } else if (entry.kind() == ChangeKind.SAVE) {
        unfinished().undo(entry);
      } else {
        if (finding.state() == State.HALF && entry.to() != null) {
          files.rename(entry.to(), entry.path());
        }
        if (entry.part() != null && Renames.exists(files, entry.part())) {
          new TreeRemoval(files, commands, count -> {}, new Cancellation()).remove(entry.part());
        }
      }
    }
    journal.settle(entry, JournalPhrase.HALF_DONE_TAKEN_AWAY);
  }

  /** Notes that a change is left as it is. */
  public void leave(Finding finding) throws IOException {
    journal.settle(finding.entry(), JournalPhrase.LEFT_AS_FOUND);
  }
}
