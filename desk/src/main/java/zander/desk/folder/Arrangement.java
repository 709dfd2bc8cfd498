package zander.desk.folder;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.listing.Listed;
import zander.core.listing.Narrowing;

/**
 * Which rows of a folder are shown, and in which order. Immutable, so that a large folder can be
 * arranged on another thread.
 *
 * @param stays rows that are shown even if hidden: what was just made or changed
 */
record Arrangement(
    Column column,
    boolean descending,
    boolean foldersFirst,
    boolean hidden,
    Narrowing narrowing,
    EntryNotes notes,
    Set<RemotePath> stays) {

  List<RemoteEntry> of(List<RemoteEntry> all) {
    List<RemoteEntry> rows = new ArrayList<>(all.size());
    for (RemoteEntry entry : all) {
      boolean seen =
          hidden || !entry.path().wireName().startsWith(".") || stays.contains(entry.path());
      if (seen && (narrowing.isEmpty() || narrowing.fits(Listed.of(entry)))) {
        rows.add(entry);
      }
    }
    rows.sort(order(rows));
    return rows;
  }

  private Comparator<RemoteEntry> order(List<RemoteEntry> rows) {
    Comparator<RemoteEntry> by = column == Column.NOTES ? byNotes(rows) : column.order();
    by = descending ? by.reversed() : by;
    by = by.thenComparing(Column.NAME.order());
    return foldersFirst
        ? Comparator.comparing((RemoteEntry e) -> !e.leadsToFolder()).thenComparing(by)
        : by;
  }

  /** Each entry's note is made once, not in each comparison. */
  private Comparator<RemoteEntry> byNotes(List<RemoteEntry> rows) {
    Map<RemoteEntry, String> words = new IdentityHashMap<>();
    rows.forEach(entry -> words.put(entry, notes.of(entry).words()));
    return Comparator.comparing(words::get);
  }
}
