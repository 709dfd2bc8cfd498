package zander.desk.folder;

import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import zander.core.files.RemoteEntry;

/**
 * The order of a folder's rows.
 *
 * @param notes by which rows are ordered, if they are
 */
record FolderOrder(Column column, boolean descending, boolean foldersFirst, EntryNotes notes)
    implements ArrangedRows.Order<RemoteEntry> {

  @Override
  public Comparator<RemoteEntry> of(List<RemoteEntry> all) {
    Comparator<RemoteEntry> by = column == Column.NOTES ? byNotes(all) : column.order();
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
