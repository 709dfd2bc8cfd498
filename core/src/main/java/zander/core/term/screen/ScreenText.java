package zander.core.term.screen;

import zander.core.term.unicode.CharClasses;
import zander.core.term.unicode.Clusters;

/** Prints characters on a screen: where each goes, what it joins, and where a row is full. */
public final class ScreenText {
  private final Screen screen;
  private final Cursor cursor;

  /** The last character that was printed, for REP; 0 once anything else came. */
  private int lastPrinted;

  ScreenText(Screen screen) {
    this.screen = screen;
    this.cursor = screen.cursor;
  }

  /** Characters from 0x20 to 0x7e, as the sets in use have them. */
  public void print(byte[] bytes, int from, int to) {
    int at = from;
    while (at < to && (screen.insert || !cursor.charsets.isPlain())) {
      int code = cursor.charsets.character(bytes[at++]);
      cursor.charsets = cursor.charsets.after();
      print(code);
    }
    while (at < to) {
      wrapIfDue();
      int end = screen.lineEnd();
      int count = Math.min(to - at, end - cursor.x);
      Row row = screen.grid.touch(screen.grid.row(cursor.y));
      write(row, bytes, at, count);
      at += count;
      if (cursor.x == end && !screen.autoWrap && at < to) {
        // Without wrapping, each character more takes the last column.
        at = Math.max(at, to - 1);
        cursor.x = end - 1;
        write(row, bytes, at++, 1);
      }
      advanced(end);
      lastPrinted = bytes[at - 1];
    }
  }

  private void write(Row row, byte[] bytes, int at, int count) {
    int x = cursor.x;
    row.cut(x);
    row.cut(x + count);
    int[] codes = row.codes;
    for (int i = 0; i < count; i++) {
      codes[x + i] = bytes[at + i];
    }
    java.util.Arrays.fill(row.styles, x, x + count, cursor.style);
    if (cursor.decoration != null || row.decorations != null) {
      row.decorate(x, x + count, cursor.decoration);
    }
    row.use(x + count);
    cursor.x = x + count;
  }

  /** The cursor stands at most in the last column, with the wrap due. */
  private void advanced(int end) {
    if (cursor.x >= end) {
      cursor.x = end - 1;
      cursor.wrapDue = screen.autoWrap;
    }
  }

  /** One character of any kind. */
  public void print(int codePoint) {
    if (CharClasses.isLeftOut(codePoint)) {
      return;
    }
    if (!Clusters.standsAlone(codePoint) && join(codePoint)) {
      return;
    }
    int width = CharClasses.width(codePoint);
    if (width > 0) {
      put(codePoint, width);
      lastPrinted = codePoint;
    }
  }

  private void put(int codePoint, int width) {
    wrapIfDue();
    int end = screen.lineEnd();
    if (cursor.x + width > end) {
      if (!screen.autoWrap || end - screen.left < width) {
        return;
      }
      screen.grid.erase(cursor.y, cursor.x, end, CellStyle.erased(cursor.style), false);
      wrap();
      end = screen.lineEnd();
    }
    int x = cursor.x;
    if (screen.insert) {
      screen.grid.insert(cursor.y, x, end, width, CellStyle.erased(cursor.style));
    }
    Row row = screen.grid.touch(screen.grid.row(cursor.y));
    row.cut(x);
    row.cut(x + width);
    row.codes[x] = codePoint;
    row.styles[x] = cursor.style;
    if (width == 2) {
      row.codes[x + 1] = Row.TAIL;
      row.styles[x + 1] = cursor.style;
    }
    row.decorate(x, x + width, cursor.decoration);
    row.use(x + width);
    cursor.x = x + width;
    advanced(end);
  }

  /** Adds it to what is before the cursor, where it belongs there; a mark alone has no place. */
  private boolean join(int codePoint) {
    Row row = screen.grid.row(cursor.y);
    int x = cursor.wrapDue ? cursor.x : cursor.x - 1;
    if (x > 0 && row.codes[x] == Row.TAIL) {
      x--;
    }
    boolean isMark = CharClasses.width(codePoint) == 0;
    if (x < 0 || (!isMark && row.codes[x] == Row.BLANK)) {
      return false;
    }
    String before = row.codes[x] == Row.BLANK ? " " : row.text(x);
    if (!Clusters.joins(before, codePoint)) {
      return false;
    }
    if (before.codePointCount(0, before.length()) >= Clusters.LONGEST) {
      return true;
    }
    screen.grid.touch(row);
    row.cluster(x, before + Character.toString(codePoint));
    row.use(x + 1);
    if (Clusters.widens(before, codePoint) && row.width(x) == 1 && cursor.x == x + 1) {
      widen(row, x);
    }
    return true;
  }

  private void widen(Row row, int x) {
    int end = screen.lineEnd();
    if (x + 1 < end && !cursor.wrapDue) {
      if (screen.insert) {
        screen.grid.insert(cursor.y, x + 1, end, 1, CellStyle.PLAIN);
      }
      row.cut(x + 2);
      row.codes[x + 1] = Row.TAIL;
      row.styles[x + 1] = row.styles[x];
      row.use(x + 2);
      cursor.x = x + 2;
      advanced(end);
    }
  }

  /** Prints the last character again (REP); not more often than a row has cells. */
  public void repeat(int times) {
    int most = Math.min(times, screen.columns());
    int code = lastPrinted;
    for (int i = 0; i < most && code > 0; i++) {
      print(code);
    }
  }

  /** Something else than a character came: there is nothing to repeat. */
  public void forgetPrinted() {
    lastPrinted = 0;
  }

  private void wrapIfDue() {
    if (cursor.wrapDue) {
      wrap();
    }
  }

  private void wrap() {
    Row row = screen.grid.row(cursor.y);
    row.wrapped = screen.left == 0 && screen.right == screen.columns();
    boolean goesOn = row.wrapped;
    int back = cursor.x >= screen.left && cursor.x < screen.right ? screen.left : 0;
    screen.moves().index();
    cursor.x = back;
    if (cursor.y > 0 && screen.grid.row(cursor.y - 1) == row) {
      // Between margins, moving the rows has cut the text from what was below.
      row.wrapped = goesOn;
    }
    cursor.wrapDue = false;
  }
}
