package zander.core.change;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import java.util.function.LongConsumer;
import zander.core.change.place.HoldingFolder;
import zander.core.connect.command.Commands;
import zander.core.files.RemoteAttributes;
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

  private static final int AT_ONCE = 256;

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
    return letGo(rules, sizes, gone -> {}, stop);
  }

  /**
   * The same, to be stopped between portions.
   *
   * @param progress told how many are gone
   */
  public int letGo(Rules rules, Sizes sizes, LongConsumer progress, Cancellation stop)
      throws IOException {
    long oldest = System.currentTimeMillis() - TimeUnit.DAYS.toMillis(rules.days());
    List<JournalEntry> held = entries();
    List<JournalEntry> young = held.stream().filter(entry -> entry.at() >= oldest).toList();
    List<JournalEntry> due = new ArrayList<>(tooMuch(young, rules.bytes(), sizes));
    held.stream().filter(entry -> entry.at() < oldest).forEach(due::add);
    for (int from = 0; from < due.size(); from += AT_ONCE) {
      stop.throwIfStopped();
      letGo(due.subList(from, Math.min(due.size(), from + AT_ONCE)), stop);
      progress.accept(Math.min(due.size(), from + AT_ONCE));
    }
    return due.size();
  }

  /** The oldest of those that are together more than may be held. */
  private static List<JournalEntry> tooMuch(List<JournalEntry> held, long most, Sizes sizes)
      throws IOException {
    List<JournalEntry> due = new ArrayList<>();
    List<Long> each = sizes.of(held.stream().map(JournalEntry::to).toList());
    long bytes = 0;
    for (int i = 0; i < held.size(); i++) {
      bytes += each.get(i);
      if (bytes > most && !isOneDeletion(held.get(i), held.get(0))) {
        due.add(held.get(i));
      }
    }
    return due;
  }

  private static boolean isOneDeletion(JournalEntry one, JournalEntry other) {
    return one.id() == other.id() || (one.group() != 0 && one.group() == other.group());
  }

  /** How many bytes each takes, in their order; 0 for one that is not there. */
  public interface Sizes {
    List<Long> of(List<RemotePath> held) throws IOException;
  }

  /** Written down together, and removed by one command where there is a shell. */
  private void letGo(List<JournalEntry> entries, Cancellation stop) throws IOException {
    List<RemotePath> held = new ArrayList<>();
    List<NewChange> changes = new ArrayList<>();
    for (JournalEntry entry : entries) {
      if (!HoldingFolder.isHeld(entry.goal())) {
        throw new IllegalArgumentException(entry.to() + " is not held");
      }
      held.add(entry.goal());
      changes.add(NewChange.of(ChangeKind.PURGE, entry.goal()).states(entry.before(), null));
    }
    List<Journal.Pending> pending = journal.begin(changes);
    RemoteFailure failure = null;
    try {
      new TreeRemoval(files, commands, count -> {}, stop).removeAll(held);
    } catch (RemoteFailure e) {
      failure = e;
    }
    boolean lost = failure != null && failure.reason() == Reason.LINE_LOST;
    List<RemoteAttributes> left = lost ? List.of() : files.lookAll(held);
    for (int i = 0; i < pending.size(); i++) {
      if (failure != null && (lost || left.get(i) != null)) {
        pending.get(i).failed(failure);
      } else {
        pending.get(i).done();
      }
    }
    if (failure != null) {
      throw failure;
    }
    files.removeFolders(held.stream().map(RemotePath::parent).distinct().toList());
  }
}
