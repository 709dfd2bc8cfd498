package zander.core.change;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import zander.core.change.PutBack.Outcome;
import zander.core.change.PutBack.Verdict;
import zander.core.change.place.FolderTimes;
import zander.core.change.place.HoldingFolder;
import zander.core.change.place.Renames;
import zander.core.change.save.SaveFailure;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteBatch.Look;
import zander.core.files.RemoteBatch.Renaming;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.journal.NewChange;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;
import zander.core.work.Cancellation;
import zander.core.work.Workers;

/**
 * Puts many changes back, newest first. Neighbours in that order that have no path in common, and
 * none above another's, are put back at the same time: what was deleted by renaming all of it
 * together, and other changes several at once. So the line's delay is paid a few times for
 * hundreds.
 */
final class PutBackMany {
  private static final int AT_ONCE = 12;
  private static final int MOST_TOGETHER = 512;

  private final RemoteFiles files;
  private final Journal journal;
  private final PutBack one;
  private final AtomicLong through = new AtomicLong();

  PutBackMany(RemoteFiles files, Journal journal, PutBack one) {
    this.files = files;
    this.journal = journal;
    this.one = one;
  }

  List<Outcome> run(List<JournalEntry> all, LongConsumer progress, Cancellation stop)
      throws IOException {
    List<Outcome> outcomes = new ArrayList<>();
    openFirst(all);
    for (int from = 0; from < all.size(); ) {
      stop.throwIfStopped();
      int to = endOfStretch(all, from);
      List<JournalEntry> some = all.subList(from, to);
      FolderTimes.Chain times = FolderTimes.chain(files, some.stream().map(journal::last).toList());
      outcomes.addAll(
          isHeld(some.get(0)) ? renameBack(some, progress) : apart(some, progress, stop));
      times.giveBack();
      from = to;
    }
    return outcomes;
  }

  /** Asks for the vault once and before anything is done, not in the midst of it for each. */
  private void openFirst(List<JournalEntry> all) throws IOException {
    for (JournalEntry entry : all) {
      JournalEntry last = journal.last(entry);
      if (journal.keepsContent(last)) {
        journal.contentBefore(last);
        return;
      }
    }
  }

  /** Deleted, not yet put back, and held where it was put first. */
  private boolean isHeld(JournalEntry entry) {
    JournalEntry last = journal.last(entry);
    return entry.kind() == ChangeKind.DELETE && last.id() == entry.id() && entry.isDone();
  }

  private int endOfStretch(List<JournalEntry> all, int from) {
    boolean held = isHeld(all.get(from));
    Set<RemotePath> taken = new HashSet<>();
    Set<RemotePath> above = new HashSet<>();
    int to = from;
    while (to < all.size() && to - from < MOST_TOGETHER && isHeld(all.get(to)) == held) {
      JournalEntry entry = journal.last(all.get(to));
      List<RemotePath> paths = new ArrayList<>(List.of(entry.path()));
      if (entry.to() != null) {
        paths.add(entry.to());
      }
      Set<RemotePath> parents = new HashSet<>();
      for (RemotePath path : paths) {
        for (RemotePath part : path.chain()) {
          if (!part.equals(path)) {
            parents.add(part);
          }
        }
      }
      boolean meets =
          paths.stream().anyMatch(path -> taken.contains(path) || above.contains(path))
              || parents.stream().anyMatch(taken::contains);
      if (meets && to > from) {
        break;
      }
      taken.addAll(paths);
      above.addAll(parents);
      to++;
    }
    return to;
  }

  private List<Outcome> apart(List<JournalEntry> some, LongConsumer progress, Cancellation stop)
      throws IOException {
    List<Future<Outcome>> begun = new ArrayList<>();
    List<Outcome> outcomes = new ArrayList<>();
    try (Workers workers = new Workers("put-back", AT_ONCE)) {
      for (JournalEntry entry : some) {
        begun.add(
            workers.submit(
                () -> {
                  stop.throwIfStopped();
                  Outcome outcome = alone(entry);
                  progress.accept(through.incrementAndGet());
                  return outcome;
                }));
      }
      for (Future<Outcome> future : begun) {
        outcomes.add(future.get());
      }
    } catch (ExecutionException e) {
      if (e.getCause() instanceof RuntimeException broken) {
        throw broken;
      }
      throw e.getCause() instanceof IOException io ? io : new IOException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new java.util.concurrent.CancellationException("interrupted");
    }
    return outcomes;
  }

  private Outcome alone(JournalEntry asked) throws IOException {
    try {
      Verdict verdict = one.look(asked);
      if (verdict == Verdict.READY) {
        one.apply(journal.last(asked));
      }
      return new Outcome(asked, verdict, null);
    } catch (SaveFailure e) {
      if (e.reason() == SaveFailure.Reason.LINE_LOST) {
        throw e;
      }
      return new Outcome(
          asked,
          Verdict.READY,
          e.getCause() instanceof RemoteFailure why
              ? why
              : new RemoteFailure(Reason.FAILED, FileStep.SAVE, asked.path(), found(e), e));
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return new Outcome(asked, Verdict.READY, e);
    }
  }

  private List<Outcome> renameBack(List<JournalEntry> some, LongConsumer progress)
      throws IOException {
    List<RemotePath> goals = new ArrayList<>();
    for (JournalEntry entry : some) {
      goals.add(entry.goal());
    }
    List<Look> held = files.batch().lookAtThemselves(goals);
    List<RemoteAttributes> taken =
        files.batch().look(some.stream().map(JournalEntry::path).toList());
    Outcome[] outcomes = new Outcome[some.size()];
    List<Integer> ready = new ArrayList<>();
    List<NewChange> changes = new ArrayList<>();
    List<Renaming> renamings = new ArrayList<>();
    Map<RemotePath, RemoteFailure> asked = new HashMap<>();
    for (int i = 0; i < some.size(); i++) {
      JournalEntry entry = some.get(i);
      Verdict verdict = verdict(entry, held.get(i), taken.get(i));
      RemoteFailure foreign = verdict == Verdict.READY ? heldByAnother(entry, asked) : null;
      if (verdict != Verdict.READY || foreign != null) {
        outcomes[i] = new Outcome(entry, verdict, foreign);
        continue;
      }
      FileState now = FileState.of(held.get(i).orThrow());
      ready.add(i);
      changes.add(
          NewChange.of(ChangeKind.RENAME, goals.get(i))
              .to(entry.path())
              .states(now, now)
              .undoes(entry.id()));
      renamings.add(new Renaming(goals.get(i), entry.path(), false));
    }
    List<Journal.Pending> pending = journal.begin(changes);
    List<RemoteFailure> failures;
    try {
      failures = files.batch().rename(renamings);
    } catch (IOException e) {
      for (Journal.Pending begun : pending) {
        begun.failed(e);
      }
      throw e;
    }
    Set<RemotePath> places = new HashSet<>();
    for (int i = 0; i < ready.size(); i++) {
      JournalEntry entry = some.get(ready.get(i));
      RemoteFailure failure = failures.get(i);
      if (failure != null) {
        failure = inAnotherWay(entry, failure);
      }
      if (failure == null) {
        pending.get(i).done();
        places.add(entry.goal().parent());
      } else {
        pending.get(i).failed(failure);
      }
      outcomes[ready.get(i)] = new Outcome(entry, Verdict.READY, failure);
    }
    // Those that are not empty yet stay.
    files.removeFolders(List.copyOf(places));
    progress.accept(through.addAndGet(some.size()));
    return List.of(outcomes);
  }

  /** Why what is held is not what we held; {@code null} when it is. Asks once for each folder. */
  private @Nullable RemoteFailure heldByAnother(
      JournalEntry entry, Map<RemotePath, RemoteFailure> asked) throws IOException {
    // Each deletion has a place of its own in it: a year of them is asked about once.
    RemotePath holding = entry.goal().parent().parent();
    if (!asked.containsKey(holding)) {
      RemoteFailure foreign = null;
      try {
        HoldingFolder.check(files, entry.goal());
      } catch (RemoteFailure e) {
        if (e.reason() == Reason.LINE_LOST) {
          throw e;
        }
        foreign = e;
      }
      asked.put(holding, foreign);
    }
    return asked.get(holding);
  }

  private static Verdict verdict(JournalEntry entry, Look held, @Nullable RemoteAttributes taken)
      throws IOException {
    if (held.failure() != null && held.failure().reason() == Reason.NO_SUCH_FILE) {
      return Verdict.GONE;
    }
    if (taken != null) {
      return Verdict.NAME_TAKEN;
    }
    RemoteAttributes now = held.attributes();
    if (now == null) {
      return Verdict.CHANGED_SINCE;
    }
    boolean same =
        now.isFolder()
            ? entry.was().kind() == now.kind()
            : entry.before() == null || entry.before().looksLike(now);
    return same ? Verdict.READY : Verdict.CHANGED_SINCE;
  }

  private @Nullable RemoteFailure inAnotherWay(JournalEntry entry, RemoteFailure first)
      throws IOException {
    try {
      Renames.toFree(files, entry.goal(), entry.path());
      return null;
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return first;
    }
  }

  private static Phrase found(SaveFailure e) {
    return switch (e.reason()) {
      case CHANGED_MEANWHILE -> FilePhrase.CHANGED_MEANWHILE.of();
      case GONE -> FilePhrase.GONE_MEANWHILE.of();
      case OWNER_WOULD_CHANGE -> FilePhrase.OWNER_WOULD_CHANGE.of();
      case METADATA_WOULD_CHANGE -> FilePhrase.METADATA_WOULD_CHANGE.of();
      case CHECK_REFUSED -> FilePhrase.CHECK_REFUSED.of();
      case REFUSED, LINE_LOST -> e.getCause() == null ? Phrase.quoted("") : Phrase.of(e.getCause());
    };
  }
}
