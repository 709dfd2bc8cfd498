package zander.core.change.rights;

import java.io.IOException;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.journal.NewChange;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;
import zander.core.work.BlockingCalls;
import zander.core.work.Cancellation;

/**
 * Changes the rights of trees as planned: written down whole before, done by the server's tools or
 * the file service, read back. What was stopped or cut can be gone on with, and all can be put
 * back, also the part that was done.
 */
public final class TreeRightsTask {
  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;
  private volatile boolean cut;

  public TreeRightsTask(RemoteFiles files, Commands commands, Journal journal) {
    this.files = files;
    this.commands = commands;
    this.journal = journal;
  }

  /** Told how far it is, on the thread that works. */
  public interface Progress {
    Progress NONE = (done, all) -> {};

    void at(long done, long all);
  }

  /**
   * Makes the change; waits.
   *
   * @param stop ends it between two commands; the outcome says what was done
   * @throws IOException what was begun by then stays under way in the journal; see {@link #isCut}
   */
  public TreeOutcome run(TreeSteps steps, Progress progress, Cancellation stop) throws IOException {
    return run(steps, 0, progress, stop);
  }

  /**
   * Puts one back: every entry that is as the change left it gets what it had before. What was
   * changed since is left, and told.
   *
   * @throws IOException also when what was before is not kept any more
   */
  public TreeOutcome putBack(JournalEntry entry, Progress progress, Cancellation stop)
      throws IOException {
    return run(kept(entry).reversed(), entry.id(), progress, stop);
  }

  private TreeOutcome run(TreeSteps steps, long undoes, Progress progress, Cancellation stop)
      throws IOException {
    BlockingCalls.check("setting rights of a tree");
    RemotePath about = steps.roots().about();
    RemoteAttributes is = files.look(about);
    Journal.Pending pending =
        journal.begin(
            NewChange.of(ChangeKind.RIGHTS_OF_TREE, about)
                .states(FileState.of(is), FileState.of(is))
                .content(steps.toBytes())
                .undoes(undoes)
                .note(String.valueOf(steps.size())));
    TreeRightsRun run = new TreeRightsRun(files, commands, steps);
    try {
      TreeOutcome outcome = run.run(pending.id(), progress, stop);
      pending.done();
      return outcome;
    } catch (IOException | RuntimeException e) {
      // What was begun can be gone on with, and taken back: it is not over.
      cut = run.hasBegun();
      if (cut) {
        pending.lost();
      } else {
        pending.failed(e);
      }
      throw e;
    }
  }

  /** Whether the last run failed in the midst: the journal holds it as under way. */
  public boolean isCut() {
    return cut;
  }

  /** Goes on with one that a lost line or a crash cut off, and ends it in the journal. */
  public TreeOutcome goOn(JournalEntry entry, Progress progress, Cancellation stop)
      throws IOException {
    cut = true;
    TreeOutcome outcome =
        new TreeRightsRun(files, commands, kept(entry)).run(entry.id(), progress, stop);
    cut = false;
    journal.settleDone(entry);
    return outcome;
  }

  /** Takes back what was done of one that a lost line or a crash cut off; not written down. */
  public TreeOutcome takeBack(JournalEntry entry) throws IOException {
    return new TreeRightsRun(files, commands, kept(entry).reversed())
        .run(entry.id(), Progress.NONE, new Cancellation());
  }

  /** How the entries of one stand, against before and after. */
  public Standing look(JournalEntry entry) throws IOException {
    return new TreeRightsRun(files, commands, kept(entry)).standing();
  }

  /**
   * @param before how many are as before
   * @param after how many are as meant
   * @param other how many are neither, or gone
   */
  public record Standing(long before, long after, long other) {}

  private TreeSteps kept(JournalEntry entry) throws IOException {
    byte[] content = journal.contentBefore(entry);
    if (content == null) {
      throw new ExplainedException(KeptPhrase.BEFORE_NOT_KEPT.of());
    }
    return TreeSteps.ofBytes(content);
  }
}
