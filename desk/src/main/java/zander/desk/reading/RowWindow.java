package zander.desk.reading;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.reading.PagedFile;

/**
 * The rows of a file that are held, a part of it without gaps; what is further away is let go of.
 * Used on the interface thread only.
 */
public final class RowWindow {
  /** Rows that are held at most. */
  public static final int MOST = 4000;

  /** Characters in them at most: a row may be a part of a line without end. */
  private static final int MOST_CHARACTERS = 2_000_000;

  /** Up to so many rows are added at once. */
  private static final int MOST_AT_ONCE = 1500;

  /** A place between two lines of a file. */
  record Place(PagedFile file, long offset) {}

  /** Shows the rows. */
  public interface Shown {
    /** Rows were exchanged for others. */
    void changed(int from, int removed, List<Row> added);

    /**
     * A row is to be seen.
     *
     * @param index -1 for the end
     */
    void show(int index);
  }

  private final List<Row> rows = new ArrayList<>();
  private @Nullable Place top;
  private @Nullable Place bottom;
  private Shown shown =
      new Shown() {
        @Override
        public void changed(int from, int removed, List<Row> added) {}

        @Override
        public void show(int index) {}
      };

  /** The rows, in the order of the file. */
  public List<Row> rows() {
    return Collections.unmodifiableList(rows);
  }

  public void shownBy(Shown view) {
    shown = view;
    view.changed(0, 0, List.copyOf(rows));
  }

  /** Up to where lines before the first row were read; {@code null} before any were. */
  @Nullable Place top() {
    return top;
  }

  /** Up to where lines behind the last row were read. */
  @Nullable Place bottom() {
    return bottom;
  }

  /**
   * Holds other rows, of which those around one that is to be shown are kept when they are many.
   *
   * @param show its index; -1 for the end
   */
  void reset(List<Row> now, Place from, Place to, int show) {
    int shownAt = show < 0 ? now.size() : show;
    int first = lineFrom(now, Math.max(0, Math.min(shownAt - MOST / 2, now.size() - MOST)));
    int last = Math.min(now.size(), first + MOST);
    exchange(0, rows.size(), now.subList(first, last));
    top = first == 0 ? from : before(now.get(first));
    bottom = last == now.size() ? to : behind(now.get(last - 1));
    shown.show(show < 0 ? -1 : show - first);
  }

  /**
   * The first row from here on that is a line, where rows before it are let go of: what is told
   * between two files is told again when they are read back into.
   */
  private static int lineFrom(List<Row> some, int first) {
    int index = first;
    while (index > 0 && index < some.size() - 1 && some.get(index).isNotice()) {
      index++;
    }
    return index;
  }

  private static Place before(Row row) {
    return new Place(row.file(), row.line().from());
  }

  private static Place behind(Row row) {
    return new Place(row.file(), row.line().end());
  }

  /**
   * @param more of which only the last are held when they are many
   */
  void addBefore(List<Row> more, Place from) {
    List<Row> last = lastOf(more);
    top = last.size() < more.size() ? before(last.get(0)) : from;
    exchange(0, 0, last);
    int kept = fitting(rows);
    if (kept < rows.size()) {
      bottom = behind(rows.get(kept - 1));
      exchange(kept, rows.size() - kept, List.of());
    }
  }

  /** How many of the first rows are held together. */
  private static int fitting(List<Row> some) {
    int most = Math.min(MOST, some.size());
    long characters = 0;
    for (int i = 0; i < most; i++) {
      characters += some.get(i).line().text().length();
      if (characters > MOST_CHARACTERS) {
        return Math.max(1, i);
      }
    }
    return most;
  }

  private static List<Row> lastOf(List<Row> more) {
    return more.subList(lineFrom(more, Math.max(0, more.size() - MOST_AT_ONCE)), more.size());
  }

  /** The same for rows that a person scrolls to. */
  void addBehind(List<Row> more, Place to) {
    List<Row> first = more.subList(0, Math.min(MOST_AT_ONCE, more.size()));
    add(first, first.size() < more.size() ? behind(first.get(first.size() - 1)) : to);
  }

  /**
   * Adds what has come.
   *
   * @param more of which only the last are held when they are many
   */
  void addAfter(List<Row> more, @Nullable Place to) {
    List<Row> last = lastOf(more);
    if (last.size() < more.size()) {
      exchange(0, rows.size(), List.of());
      top = before(last.get(0));
    }
    add(last, to);
  }

  private void add(List<Row> more, @Nullable Place to) {
    bottom = to;
    if (!more.isEmpty() && !rows.isEmpty() && continues(more.get(0))) {
      // The beginning of a line was shown, and now comes the whole of it.
      exchange(rows.size() - 1, 1, List.of());
    }
    exchange(rows.size(), 0, more);
    List<Row> fromEnd = new ArrayList<>(rows);
    Collections.reverse(fromEnd);
    int over = lineFrom(rows, rows.size() - fitting(fromEnd));
    if (over > 0) {
      exchange(0, over, List.of());
      top = before(rows.get(0));
    }
  }

  private boolean continues(Row row) {
    Row end = rows.get(rows.size() - 1);
    return !row.isNotice()
        && !end.isNotice()
        && end.file() == row.file()
        && end.line().from() == row.line().from();
  }

  /**
   * @param index -1 for the end
   */
  void show(int index) {
    shown.show(index);
  }

  private void exchange(int from, int removed, List<Row> added) {
    if (removed > 0 || !added.isEmpty()) {
      List<Row> part = rows.subList(from, from + removed);
      part.clear();
      rows.addAll(from, added);
      shown.changed(from, removed, List.copyOf(added));
    }
  }

  /** The row of a line, or of the one that it is in; -1 when it is not held. */
  int indexOf(PagedFile file, long offset) {
    for (int i = 0; i < rows.size(); i++) {
      Row row = rows.get(i);
      if (row.file() == file
          && !row.isNotice()
          && row.line().from() <= offset
          && offset < row.line().end()) {
        return i;
      }
    }
    return -1;
  }
}
