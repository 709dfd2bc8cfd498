package zander.core.term.screen;

import org.jspecify.annotations.Nullable;

/**
 * The two screens of a terminal, the cursor on them, its margins and its modes. Columns and rows
 * are counted from 0. Not safe for use by several threads at once.
 */
public final class Screen {
  final Grid.Clock clock = new Grid.Clock();
  final Scrollback scrollback;
  final Cursor cursor = new Cursor();
  final TabStops tabs;
  Grid main;
  Grid other;
  Grid grid;
  final Cursor savedMain = new Cursor();
  final Cursor savedOther = new Cursor();

  /** The margins: the first row and column in them, and the first after them. */
  int top;

  int bottom;
  int left;
  int right;

  boolean autoWrap = true;
  boolean insert;
  boolean sideMargins;
  boolean backWrap;

  private final ScreenText text = new ScreenText(this);
  private final ScreenMoves moves = new ScreenMoves(this);
  private final ScreenEdits edits = new ScreenEdits(this);

  /** Whether what is protected is safe from all erasing (SPA), and not from some (DECSCA). */
  private boolean guarding;

  private boolean erasesAll;
  private boolean restylesText = true;

  public Screen(int columns, int rows, Scrollback scrollback) {
    this.scrollback = scrollback;
    main = new Grid(columns, rows, clock, scrollback);
    other = new Grid(columns, rows, clock, null);
    grid = main;
    tabs = new TabStops(columns);
    resetMargins();
  }

  /** What prints on it. */
  public ScreenText text() {
    return text;
  }

  /** What moves the cursor. */
  public ScreenMoves moves() {
    return moves;
  }

  /** What erases and moves cells. */
  public ScreenEdits edits() {
    return edits;
  }

  /** As it is at power up (RIS), but for the scrollback. */
  public void reset() {
    main.clear(0, rows(), CellStyle.PLAIN);
    other.clear(0, rows(), CellStyle.PLAIN);
    grid = main;
    tabs.reset();
    backWrap = false;
    restylesText = true;
    softReset();
    savedMain.set(new Cursor());
    savedOther.set(new Cursor());
    cursor.set(new Cursor());
  }

  /** What DECSTR sets back: of the saved cursors, that of the screen in front alone. */
  public void softReset() {
    resetMargins();
    cursor.origin = false;
    cursor.style = CellStyle.PLAIN;
    cursor.decoration = null;
    cursor.charsets = Charsets.ASCII;
    autoWrap = true;
    insert = false;
    sideMargins = false;
    guarding = false;
    erasesAll = false;
    (isAlternate() ? savedOther : savedMain).set(new Cursor());
  }

  public int columns() {
    return grid.columns();
  }

  public int rows() {
    return grid.rows();
  }

  public Row row(int y) {
    return grid.row(y);
  }

  public int cursorX() {
    return cursor.x;
  }

  public int cursorY() {
    return cursor.y;
  }

  /** Whether the last column is written and the next character goes to the next row. */
  public boolean isWrapDue() {
    return cursor.wrapDue;
  }

  public boolean isAlternate() {
    return grid == other;
  }

  public long style() {
    return cursor.style;
  }

  public void style(long style) {
    cursor.style = style;
  }

  public @Nullable Decoration decoration() {
    return cursor.decoration;
  }

  public void decoration(@Nullable Decoration decoration) {
    cursor.decoration = decoration;
  }

  public Charsets charsets() {
    return cursor.charsets;
  }

  public void charsets(Charsets charsets) {
    cursor.charsets = charsets;
  }

  public void autoWrap(boolean on) {
    autoWrap = on;
    cursor.wrapDue &= on;
  }

  public boolean isAutoWrap() {
    return autoWrap;
  }

  public void insert(boolean on) {
    insert = on;
  }

  public boolean isInsert() {
    return insert;
  }

  /**
   * Protects what is written from now on, or no longer.
   *
   * @param fromAll from all erasing (SPA, EPA: ECMA-48, sections 8.3.129 and 8.3.49), or from the
   *     selective one alone (DECSCA)
   */
  public void protect(boolean on, boolean fromAll) {
    long style = cursor.style & ~CellStyle.PROTECTED;
    cursor.style = on ? style | CellStyle.PROTECTED : style;
    guarding = fromAll;
  }

  /** Whether erasing takes what is protected too (ERM: ECMA-48, section 7.2.4). */
  public void erasesAll(boolean on) {
    erasesAll = on;
  }

  public boolean isErasingAll() {
    return erasesAll;
  }

  /** Whether erasing has to leave what is protected. */
  boolean isGuarded() {
    return guarding && !erasesAll;
  }

  /** Sets whether cells are restyled along the text, or as a rectangle (DECSACE). */
  public void restylesText(boolean on) {
    restylesText = on;
  }

  public boolean isRestylingText() {
    return restylesText;
  }

  public void backWrap(boolean on) {
    backWrap = on;
  }

  public boolean isBackWrap() {
    return backWrap;
  }

  // Margins and modes of the cursor.

  Grid.Area margins() {
    return new Grid.Area(top, bottom, left, right);
  }

  public boolean isInMargins() {
    return cursor.y >= top && cursor.y < bottom && cursor.x >= left && cursor.x < right;
  }

  /** The column after the last one that text may take from where the cursor is. */
  int lineEnd() {
    int end = cursor.x < right ? right : columns();
    return grid.row(cursor.y).size == Row.Size.NORMAL ? end : Math.min(end, columns() / 2);
  }

  void resetMargins() {
    top = 0;
    bottom = rows();
    left = 0;
    right = columns();
  }

  /** Rows from the first to before the last scroll; of fewer than two nothing is set (DECSTBM). */
  public void rowMargins(int from, int to) {
    int end = Math.min(to, rows());
    if (end - from >= 2) {
      top = from;
      bottom = end;
      moves.moveTo(0, 0);
    }
  }

  /** Columns in which text moves (DECSLRM), where side margins are on. */
  public void columnMargins(int from, int to) {
    int end = Math.min(to, columns());
    if (end - from >= 2) {
      left = from;
      right = end;
      moves.moveTo(0, 0);
    }
  }

  public void sideMargins(boolean on) {
    sideMargins = on;
    left = 0;
    right = columns();
  }

  public boolean hasSideMargins() {
    return sideMargins;
  }

  public void origin(boolean on) {
    cursor.origin = on;
    moves.moveTo(0, 0);
  }

  public boolean isOrigin() {
    return cursor.origin;
  }

  /** The row of the cursor as it is reported: in origin mode from the margin. */
  public int reportedY() {
    return cursor.origin ? cursor.y - top : cursor.y;
  }

  public int reportedX() {
    return cursor.origin ? cursor.x - left : cursor.x;
  }

  /** Saves the cursor of the screen in front (DECSC, SCOSC). */
  public void saveCursor() {
    (isAlternate() ? savedOther : savedMain).set(cursor);
  }

  /** Brings the saved cursor back, within a screen that may be smaller by now. */
  public void restoreCursor() {
    cursor.set(isAlternate() ? savedOther : savedMain);
    keepCursorInside();
  }

  void keepCursorInside() {
    cursor.x = Math.min(cursor.x, columns() - 1);
    cursor.y = Math.min(cursor.y, rows() - 1);
    cursor.wrapDue &= cursor.x == columns() - 1;
  }

  /**
   * Shows the alternate screen, or the main one again. The cursor stays where it is.
   *
   * @param clear the alternate screen is blank when it comes
   */
  public void alternate(boolean on, boolean clear) {
    grid = on ? other : main;
    if (on && clear) {
      other.clear(0, rows(), CellStyle.erased(cursor.style));
    }
    redraw();
  }

  /** What has left the main screen at its top. */
  public Scrollback scrollback() {
    return scrollback;
  }

  /** The rows of the margins, from 1, as a report has them. */
  public String rowMarginsText() {
    return top + 1 + ";" + bottom;
  }

  /** The columns of the margins, from 1, as a report has them. */
  public String columnMarginsText() {
    return left + 1 + ";" + right;
  }

  /** Something changed that is seen everywhere. */
  public void redraw() {
    for (int y = 0; y < rows(); y++) {
      grid.touch(grid.row(y));
    }
  }

  /**
   * The number of the row that is the first of the main screen, where each row that ever left it
   * has one from 0 on. With the alternate screen in front, there is nothing above.
   */
  public long topRow() {
    return scrollback.gone() + scrollback.count();
  }

  /** The number of the oldest row there is. */
  public long firstRow() {
    return isAlternate() ? topRow() : scrollback.gone();
  }

  /** The row of a number, as it is now; null where there is none. */
  public @Nullable Row rowOf(long number) {
    long top = topRow();
    if (number >= top) {
      return number < top + rows() ? row((int) (number - top)) : null;
    }
    long index = number - scrollback.gone();
    if (index < 0 || isAlternate()) {
      return null;
    }
    Row row = scrollback.row((int) index, 1);
    row.stamp = -number - 1;
    return row;
  }
}
