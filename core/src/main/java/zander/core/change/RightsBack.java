package zander.core.change;

import java.io.IOException;
import java.util.List;
import java.util.OptionalInt;
import zander.core.change.PutBack.Verdict;
import zander.core.change.rights.AccessListChange;
import zander.core.change.rights.AccessListTree;
import zander.core.change.rights.TreeOutcome;
import zander.core.change.rights.TreeRightsTask;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.work.Cancellation;

/** Puts back rights, of one entry and of whole trees. */
final class RightsBack {
  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;

  RightsBack(RemoteFiles files, Commands commands, Journal journal) {
    this.files = files;
    this.commands = commands;
    this.journal = journal;
  }

  /** Whether it can be put back; changes nothing. */
  Verdict look(JournalEntry entry) throws IOException {
    return switch (entry.kind()) {
      case RIGHTS_OF_TREE -> tree(entry);
      case ACCESS_LIST -> journal.keepsContent(entry) ? one(entry) : Verdict.NOT_KEPT;
      case ACCESS_LISTS_OF_TREE -> journal.keepsContent(entry) ? Verdict.READY : Verdict.NOT_KEPT;
      default -> one(entry);
    };
  }

  void apply(JournalEntry entry) throws IOException {
    switch (entry.kind()) {
      case RIGHTS_OF_TREE -> giveTree(entry);
      case ACCESS_LIST -> new AccessListChange(files, commands, journal).putBack(entry);
      case ACCESS_LISTS_OF_TREE -> new AccessListTree(files, commands, journal).putBack(entry);
      default -> giveOne(entry);
    }
  }

  private Verdict one(JournalEntry entry) throws IOException {
    try {
      RemoteAttributes now = files.lookThrough(entry.path());
      return entry.became().hasRightsOf(now) ? Verdict.READY : Verdict.CHANGED_SINCE;
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.NO_SUCH_FILE) {
        return Verdict.GONE;
      }
      throw e;
    }
  }

  private Verdict tree(JournalEntry entry) throws IOException {
    if (!journal.keepsContent(entry)) {
      return Verdict.NOT_KEPT;
    }
    try {
      TreeRightsTask.Standing now = new TreeRightsTask(files, commands, journal).look(entry);
      return now.other() == 0 ? Verdict.READY : Verdict.CHANGED_SINCE;
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.NO_SUCH_FILE) {
        return Verdict.GONE;
      }
      throw e;
    }
  }

  private void giveOne(JournalEntry entry) throws IOException {
    RemoteAttributes was = entry.was().attributes();
    var result =
        new RightsChange(files, journal, entry.id(), entry.group())
            .apply(
                List.of(entry.path()),
                OptionalInt.of(was.uid()),
                OptionalInt.of(was.gid()),
                (mode, folder) -> was.mode())
            .get(0);
    if (result.failure() != null) {
      throw result.failure();
    }
  }

  private void giveTree(JournalEntry entry) throws IOException {
    TreeOutcome outcome =
        new TreeRightsTask(files, commands, journal)
            .putBack(entry, TreeRightsTask.Progress.NONE, new Cancellation());
    for (TreeOutcome.Left left : outcome.some()) {
      if (left.failure() != null) {
        throw left.failure();
      }
    }
  }
}
