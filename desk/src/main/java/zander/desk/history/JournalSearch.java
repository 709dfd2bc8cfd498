package zander.desk.history;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.function.Consumer;
import java.util.stream.Stream;
import zander.core.files.AccountNames;
import zander.core.journal.ChangeKind;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.desk.sheet.Texts;
import zander.desk.work.Background;

/** Finds entries of a journal by words, off the interface thread; a newer search ends an older. */
final class JournalSearch {
  /** What one action does to many is listed as one. */
  private static final Set<ChangeKind> TOGETHER = EnumSet.of(ChangeKind.RIGHTS, ChangeKind.SAVE);

  /** So many are listed; all are counted. */
  private static final int MOST_SHOWN = 20_000;

  /**
   * @param shown the newest first
   * @param all how many fit
   * @param putBack the numbers of those shown that were put back
   * @param together rights that were set at once from the same to the same, and files that were
   *     saved as one change, which stand alike now: by the number of the one that stands for them,
   *     the newest first
   */
  record Found(
      List<JournalEntry> shown,
      int all,
      Set<Long> putBack,
      Map<Long, List<JournalEntry>> together) {
    static final Found NONE = new Found(List.of(), 0, Set.of(), Map.of());

    /** What an entry stands for: itself, or all that were set with it. */
    List<JournalEntry> behind(JournalEntry entry) {
      return together.getOrDefault(entry.id(), List.of(entry));
    }
  }

  private final Background background;
  private final Journal journal;
  private volatile long newest;

  JournalSearch(Background background, Journal journal) {
    this.background = background;
    this.journal = journal;
  }

  /**
   * Used on the interface thread, where the outcome comes too.
   *
   * @param typed words, all of which an entry must have; empty for every entry, of which those that
   *     set rights at once are listed as one
   */
  void find(String typed, AccountNames names, Consumer<Found> then) {
    long mine = ++newest;
    List<String> words =
        Stream.of(typed.strip().toLowerCase(Locale.ROOT).split("\\s+"))
            .filter(word -> !word.isEmpty())
            .toList();
    background.run(
        () -> found(words, names, mine),
        found -> {
          if (mine == newest) {
            then.accept(found);
          }
        },
        superseded -> {});
  }

  private Found found(List<String> words, AccountNames names, long mine) {
    List<JournalEntry> shown = new ArrayList<>();
    Set<Long> putBack = new HashSet<>();
    Map<Alike, List<JournalEntry>> groups = new HashMap<>();
    Map<Long, List<JournalEntry>> together = new HashMap<>();
    int all = 0;
    for (JournalEntry entry : journal.entries()) {
      if (mine != newest) {
        throw new CancellationException();
      }
      boolean isPutBack = journal.isPutBack(entry);
      if (fits(entry, isPutBack, words, names)) {
        if (words.isEmpty() && TOGETHER.contains(entry.kind()) && entry.group() != 0) {
          List<JournalEntry> group =
              groups.computeIfAbsent(alike(entry, isPutBack, names), first -> new ArrayList<>());
          group.add(entry);
          if (group.size() > 1) {
            together.put(group.get(0).id(), group);
            continue;
          }
        }
        all++;
        if (shown.size() < MOST_SHOWN) {
          shown.add(entry);
          if (isPutBack) {
            putBack.add(entry.id());
          }
        }
      }
    }
    return new Found(shown, all, putBack, together);
  }

  /** What entries have in common that are listed as one: nothing of them reads differently. */
  private record Alike(long group, String what, boolean isPutBack, String outcome) {}

  private static Alike alike(JournalEntry entry, boolean isPutBack, AccountNames names) {
    // How large files were before says nothing of what was done to them.
    String what =
        entry.kind() == ChangeKind.SAVE
            ? ChangeKind.SAVE.name() + (entry.undoes() != 0)
            : EntryWords.what(entry, names);
    return new Alike(entry.group(), what, isPutBack, OutcomeWords.of(entry.outcome()));
  }

  private static boolean fits(
      JournalEntry entry, boolean isPutBack, List<String> words, AccountNames names) {
    if (words.isEmpty()) {
      return true;
    }
    String all =
        String.join(
                " ",
                entry.path().text(),
                entry.to() == null ? "" : entry.to().text(),
                EntryWords.what(entry, names),
                EntryWords.kind(entry.kind()),
                EntryWords.state(entry, isPutBack),
                entry.desk(),
                Texts.exactly(entry.at() / 1000))
            .toLowerCase(Locale.ROOT);
    return words.stream().allMatch(all::contains);
  }
}
