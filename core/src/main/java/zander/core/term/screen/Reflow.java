package zander.core.term.screen;

import java.util.List;

/**
 * Gives a screen another size. Rows of the main screen that were wrapped are joined and wrapped
 * anew, also those in the scrollback; rows come back from there when the screen grows, and the
 * cursor stays on the character it is on. The alternate screen is cut, or gets blank cells: its
 * program draws it anew.
 *
 * <p>Costs a look at each row, and a packing of those that were or are wrapped.
 */
public final class Reflow {
  private final Screen screen;
  private final Scrollback scrollback;
  private final Cursor cursor;

  /** Where the cursor is in the rows that are being wrapped: the row, and the cell in it. */
  private int cursorRow;

  private int cursorCell;

  /** The row that is the first of the screen. */
  private int topRow;

  public Reflow(Screen screen) {
    this.screen = screen;
    this.scrollback = screen.scrollback;
    this.cursor = screen.cursor;
  }

  /** Takes another size, at least one by one. */
  public void resize(int columns, int rows) {
    if (columns == screen.columns() && rows == screen.rows()) {
      return;
    }
    boolean alternate = screen.isAlternate();
    Cursor place = alternate ? screen.savedMain : cursor;
    Grid old = screen.main;
    gather(old, place);
    if (columns != old.columns()) {
      wrap(columns);
    }
    screen.main = unpack(columns, rows, rows - old.rows());
    place.x = Math.min(cursorCell, columns - 1);
    place.y = Math.min(cursorRow - topRow, rows - 1);
    place.wrapDue = cursorCell == columns;
    screen.other = cut(screen.other, columns, rows);
    screen.grid = alternate ? screen.other : screen.main;
    screen.tabs.resize(columns);
    screen.resetMargins();
    screen.keepCursorInside();
  }

  /** Puts all rows of the screen behind those of the scrollback. */
  private void gather(Grid old, Cursor place) {
    int y = Math.min(place.y, old.rows() - 1);
    int end = Math.max(old.filledRows(), y + 1);
    int before = scrollback.count();
    long goneBefore = scrollback.gone();
    for (int i = 0; i < end; i++) {
      scrollback.add(old.row(i));
    }
    int lost = (int) (scrollback.gone() - goneBefore);
    topRow = Math.max(0, before - lost);
    cursorRow = Math.max(0, before + y - lost);
    cursorCell = Math.min(place.x, old.columns() - 1) + (place.wrapDue ? 1 : 0);
  }

  private void wrap(int columns) {
    List<byte[]> all = scrollback.takeAll();
    int newCursor = 0;
    int newCell = cursorCell;
    int newTop = 0;
    int written = 0;
    PackedRow packer = PackedRow.writer();
    for (int i = 0; i < all.size(); ) {
      int end = i + 1;
      while (end < all.size() && PackedRow.isWrapped(all.get(end - 1)) && end - i < MOST_JOINED) {
        end++;
      }
      boolean hasCursor = cursorRow >= i && cursorRow < end;
      boolean asItIs = end == i + 1 && PackedRow.cells(all.get(i)) <= columns;
      if (topRow >= i && topRow < end) {
        newTop = written;
      }
      if (asItIs) {
        newCursor = hasCursor ? written : newCursor;
        scrollback.add(all.get(i));
        written++;
      } else {
        JoinedRows joined = new JoinedRows(all.subList(i, end));
        int cell = hasCursor ? joined.cell(cursorRow - i, cursorCell) : -1;
        int first = written;
        for (Row row : joined.wrap(columns, cell)) {
          scrollback.add(packer.pack(row));
          written++;
        }
        if (hasCursor) {
          newCursor = first + joined.cursorRow();
          newCell = joined.cursorCell();
        }
      }
      i = end;
    }
    int lost = written - scrollback.count();
    cursorRow = Math.max(0, newCursor - lost);
    cursorCell = newCell;
    topRow = Math.max(0, Math.min(newTop - lost, scrollback.count()));
  }

  /** Rows of one text that are looked at together: a longer one is wrapped in several parts. */
  private static final int MOST_JOINED = 4096;

  /** Takes the last rows out for a new screen. */
  private Grid unpack(int columns, int rows, int grown) {
    int count = scrollback.count();
    int top = Math.max(0, topRow - Math.max(0, grown));
    if (count - top > rows) {
      // What is below the cursor goes before the row that the cursor is in.
      top = Math.min(count - rows, cursorRow);
    }
    topRow = Math.max(top, cursorRow - rows + 1);
    Grid made = new Grid(columns, rows, screen.clock, scrollback);
    for (int y = count - 1 - topRow; y >= 0; y--) {
      Row row = fit(scrollback.takeLast(columns), columns);
      if (y < rows) {
        made.set(y, row);
      }
    }
    return made;
  }

  private static Row fit(Row row, int columns) {
    if (row.columns() == columns) {
      return row;
    }
    Row cut = new Row(columns);
    row.cut(columns);
    cut.copy(row, 0, 0, Math.min(columns, row.columns()));
    cut.size = row.size;
    return cut;
  }

  private Grid cut(Grid old, int columns, int rows) {
    Grid made = new Grid(columns, rows, screen.clock, null);
    for (int y = 0; y < Math.min(rows, old.rows()); y++) {
      Row row = old.row(y);
      if (columns >= row.columns()) {
        made.row(y).copy(row, 0, 0, row.columns());
      } else {
        made.set(y, fit(row, columns));
      }
    }
    return made;
  }
}
