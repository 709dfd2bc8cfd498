package zander.core.term.screen;

import org.jspecify.annotations.Nullable;

/**
 * The rows of one screen, and what moves and erases cells in them. Places are counted from 0, an
 * end is the first that is not meant. No call costs more than the screen has cells.
 */
final class Grid {
  private final int columns;
  private final Clock clock;
  private final @Nullable Scrollback scrollback;
  private final Row[] rows;

  /** Numbers the changes of all rows, so that no two states of any row have the same number. */
  static final class Clock {
    private long time;

    long next() {
      return ++time;
    }
  }

  /**
   * @param scrollback takes the rows that leave at the top; null for a screen that keeps none
   */
  Grid(int columns, int rows, Clock clock, @Nullable Scrollback scrollback) {
    this.columns = columns;
    this.clock = clock;
    this.scrollback = scrollback;
    this.rows = new Row[rows];
    for (int i = 0; i < rows; i++) {
      this.rows[i] = new Row(columns);
      touch(this.rows[i]);
    }
  }

  int columns() {
    return columns;
  }

  int rows() {
    return rows.length;
  }

  Row row(int y) {
    return rows[y];
  }

  void set(int y, Row row) {
    rows[y] = row;
    touch(row);
  }

  Row touch(Row row) {
    row.stamp = clock.next();
    return row;
  }

  /** A rectangle of it. */
  record Area(int top, int bottom, int left, int right) {}

  private boolean isWhole(Area area) {
    return area.left == 0 && area.right == columns;
  }

  /** Moves the rows of an area up; those that leave at the top of the screen are kept. */
  void scrollUp(Area area, int by, long style) {
    if (area.top == 0 && scrollback != null && isWhole(area)) {
      for (int y = 0; y < Math.min(by, area.bottom); y++) {
        scrollback.add(rows[y]);
      }
    }
    moveUp(area, by, style);
  }

  /** Moves the rows of an area up; what comes in below is blank in a style. */
  void moveUp(Area area, int by, long style) {
    int count = Math.min(by, area.bottom - area.top);
    if (!isWhole(area)) {
      shiftCells(area, count, style);
      return;
    }
    unwrap(area.top - 1);
    if (area.bottom < rows.length) {
      unwrap(area.bottom - 1);
    }
    for (int i = 0; i < count; i++) {
      Row out = rows[area.top];
      System.arraycopy(rows, area.top + 1, rows, area.top, area.bottom - area.top - 1);
      out.clear(style);
      rows[area.bottom - 1] = touch(out);
    }
  }

  /** Moves the rows of an area down; what comes in above is blank in a style. */
  void scrollDown(Area area, int by, long style) {
    int count = Math.min(by, area.bottom - area.top);
    if (!isWhole(area)) {
      shiftCells(area, -count, style);
      return;
    }
    for (int i = 0; i < count; i++) {
      Row out = rows[area.bottom - 1];
      System.arraycopy(rows, area.top, rows, area.top + 1, area.bottom - area.top - 1);
      out.clear(style);
      rows[area.top] = touch(out);
    }
    unwrap(area.top - 1);
    unwrap(area.bottom - 1);
  }

  /** The text of a row does not go on in another any more: that one was moved away. */
  private void unwrap(int y) {
    if (y >= 0) {
      rows[y].wrapped = false;
    }
  }

  private void shiftCells(Area area, int up, long style) {
    int height = area.bottom - area.top;
    for (int i = 0; i < height; i++) {
      int y = up > 0 ? area.top + i : area.bottom - 1 - i;
      int from = y + up;
      Row row = touch(rows[y]);
      row.cut(area.left);
      row.cut(area.right);
      row.wrapped = false;
      if (from >= area.top && from < area.bottom) {
        rows[from].cut(area.left);
        rows[from].cut(area.right);
        row.copy(rows[from], area.left, area.left, area.right - area.left);
      } else {
        row.erase(area.left, area.right, style);
      }
    }
  }

  /** Moves cells to the right, as far as a column, and makes room that is blank in a style. */
  void insert(int y, int x, int right, int by, long style) {
    Row row = touch(rows[y]);
    int count = Math.min(by, right - x);
    row.cut(x);
    row.cut(right);
    row.cut(right - count);
    row.copy(row, x, x + count, right - x - count);
    row.erase(x, x + count, style);
    row.wrapped = false;
  }

  /** Takes cells out; those up to a column move in from the right. */
  void delete(int y, int x, int right, int by, long style) {
    Row row = touch(rows[y]);
    int count = Math.min(by, right - x);
    row.cut(x);
    row.cut(x + count);
    row.cut(right);
    row.copy(row, x + count, x, right - x - count);
    row.erase(right - count, right, style);
    row.wrapped = false;
  }

  /**
   * Makes cells of a row blank in a style.
   *
   * @param selective leaves those that are protected
   */
  void erase(int y, int from, int to, long style, boolean selective) {
    Row row = touch(rows[y]);
    if (selective) {
      for (int x = from; x < to; x++) {
        if (!CellStyle.has(row.styles[x], CellStyle.PROTECTED)) {
          row.cut(x);
          row.cut(x + 1);
          row.erase(x, x + 1, style);
        }
      }
      return;
    }
    row.cut(from);
    row.cut(to);
    row.erase(from, to, style);
    if (to == columns) {
      row.wrapped = false;
    }
  }

  /** Makes whole rows blank. */
  void clear(int top, int bottom, long style) {
    for (int y = top; y < bottom; y++) {
      touch(rows[y]).clear(style);
    }
  }

  /** How many rows have anything in them, counted from the top to the last that has. */
  int filledRows() {
    int end = rows.length;
    while (end > 0 && rows[end - 1].written() == 0) {
      end--;
    }
    return end;
  }

  /** Gives what is on the screen to the scrollback, as far as it has text. */
  void keepAll() {
    if (scrollback == null) {
      return;
    }
    int filled = filledRows();
    for (int y = 0; y < filled; y++) {
      scrollback.add(rows[y]);
    }
  }
}
