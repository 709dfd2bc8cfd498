package zander.core.change;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import zander.core.connect.Commands;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.journal.NewChange;
import zander.core.work.Cancellation;

/** What the holding folders of a server have, by the journal, and letting go of what is due. */
public final class HeldThings {
  /**
   * How long and how much is held.
   *
   * @param days 0 or more
   * @param bytes of all that is held together; the oldest goes first
   */
  public record Rules(int days, long bytes) {
    public static final Rules USUAL = new Rules(30, 5L << 30);

    public Rules {
      if (days < 0 || bytes < 0) {
        throw new IllegalArgumentException("days and bytes are 0 or more");
      }
    }
  }

  private final RemoteFiles files;
  private final Commands commands;
  private final Journal journal;

  public HeldThings(RemoteFiles files, Commands commands, Journal journal) {
    this.files = files;
    this.commands = commands;
    this.journal = journal;
  }

  /** The entries whose thing is still held, as far as the journal knows, newest first. */
  public List<JournalEntry> entries() {
    List<JournalEntry> all = journal.entries();
    Set<RemotePath> gone = new HashSet<>();
    for (JournalEntry entry : all) {
      if (entry.kind() == ChangeKind.PURGE && entry.isDone()) {
        gone.add(entry.path());
      }
    }
    List<JournalEntry> held = new ArrayList<>();
    for (JournalEntry entry : all) {
      boolean holds = entry.kind() == ChangeKind.DELETE || entry.kind() == ChangeKind.REPLACE;
      boolean there = holds && entry.to() != null && !gone.contains(entry.to());
      if (there && entry.isDone() && !journal.isPutBack(entry)) {
        held.add(entry);
      }
    }
    return held;
  }

  /**
   * Lets go of what is older than the rules keep, and of the oldest while all is more than they
   * allow. What was deleted last stays however large it is: somebody has just chosen to hold it.
   *
   * @param sizes how much a held thing takes; asked only while the size rule can matter
   * @return how many things went
   */
  public int letGo(Rules rules, Sizes sizes, Cancellation stop) throws IOException {
    long oldest = System.currentTimeMillis() - TimeUnit.DAYS.toMillis(rules.days());
    long bytes = 0;
    int went = 0;
    List<JournalEntry> held = entries();
    for (JournalEntry entry : held) {
      stop.throwIfStopped();
      boolean due = entry.at() < oldest;
      if (!due) {
        bytes += sizes.of(entry.to());
        due = bytes > rules.bytes() && !isOneDeletion(entry, held.get(0));
      }
      if (due) {
        letGo(entry, stop);
        went++;
      }
    }
    return went;
  }

  private static boolean isOneDeletion(JournalEntry one, JournalEntry other) {
    return one.id() == other.id() || (one.group() != 0 && one.group() == other.group());
  }

  /** How many bytes a tree takes; 0 for one that is not there. */
  public interface Sizes {
    long of(RemotePath held) throws IOException;
  }

  private void letGo(JournalEntry entry, Cancellation stop) throws IOException {
    RemotePath held = entry.to();
    if (!HoldingFolder.isHeld(held)) {
      throw new IllegalArgumentException(held + " is not held");
    }
    Journal.Pending pending =
        journal.begin(NewChange.of(ChangeKind.PURGE, held).states(entry.before(), null));
    try {
      new TreeRemoval(files, commands, count -> {}, stop).remove(held);
    } catch (RemoteFailure e) {
      if (e.reason() != Reason.NO_SUCH_FILE) {
        pending.failed(e);
        throw e;
      }
    }
    files.removeFolders(List.of(held.parent()));
    pending.done();
  }
}
