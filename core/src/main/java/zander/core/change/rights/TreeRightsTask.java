package zander.core.change.rights;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.CancellationException;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.journal.NewChange;
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
   * @throws IOException with the line lost, what is under way stays so in the journal
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
    List<RemotePath> roots = steps.roots().entries();
    RemotePath about = roots.size() == 1 ? roots.get(0) : steps.roots().base();
    RemoteAttributes is = files.look(about);
    Journal.Pending pending =
        journal.begin(
            NewChange.of(ChangeKind.RIGHTS_OF_TREE, about)
                .states(FileState.of(is), FileState.of(is))
                .content(steps.toBytes())
                .undoes(undoes)
                .note(String.valueOf(steps.size())));
    try {
      TreeOutcome outcome =
          new TreeRightsRun(files, commands, steps).run(pending.id(), progress, stop);
      pending.done();
      return outcome;
    } catch (CancellationException e) {
      // Stopped while looking: nothing was set yet.
      pending.failed("stopped before anything was set");
      throw e;
    } catch (IOException e) {
      pending.failed(e);
      throw e;
    }
  }

  /** Goes on with one that a lost line or a crash cut off, and ends it in the journal. */
  public TreeOutcome goOn(JournalEntry entry, Progress progress, Cancellation stop)
      throws IOException {
    TreeOutcome outcome =
        new TreeRightsRun(files, commands, kept(entry)).run(entry.id(), progress, stop);
    journal.settle(entry, true, "");
    return outcome;
  }

  /** Takes back what was done of one that a lost line or a crash cut off; not written down. */
  public TreeOutcome takeBack(JournalEntry entry) throws IOException {
    return new TreeRightsRun(files, commands, kept(entry).reversed())
        .run(entry.id(), Progress.NONE, new Cancellation());
  }

  /** How the entries of one stand, against before and after. */
  public Standing look(JournalEntry entry) throws IOException {
    return new TreeRightsRun(files, commands, kept(entry)).look(new Cancellation());
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
      throw new IOException("what was before is not kept any more");
    }
    return TreeSteps.ofBytes(content);
  }
}
