package zander.core.term.screen;

/**
 * Moves the cursor of a screen. What says "by" takes any count of 0 or more; margins and edges stop
 * it.
 */
public final class ScreenMoves {
  private final Screen screen;
  private final Cursor cursor;

  ScreenMoves(Screen screen) {
    this.screen = screen;
    this.cursor = screen.cursor;
  }

  /** Goes one row down; at the screen.bottom margin what is above moves up (IND, LF). */
  public void index() {
    cursor.wrapDue = false;
    if (cursor.y == screen.bottom - 1) {
      if (cursor.x >= screen.left && cursor.x < screen.right) {
        screen.grid.scrollUp(screen.margins(), 1, CellStyle.erased(cursor.style));
      }
    } else if (cursor.y < screen.rows() - 1) {
      cursor.y++;
    }
  }

  /** Goes one row up; at the screen.top margin what is below moves down (RI). */
  public void reverseIndex() {
    cursor.wrapDue = false;
    if (cursor.y == screen.top) {
      if (cursor.x >= screen.left && cursor.x < screen.right) {
        screen.grid.scrollDown(screen.margins(), 1, CellStyle.erased(cursor.style));
      }
    } else if (cursor.y > 0) {
      cursor.y--;
    }
  }

  public void carriageReturn() {
    cursor.wrapDue = false;
    cursor.x = cursor.x < screen.left && !cursor.origin ? 0 : screen.left;
  }

  /**
   * One to the screen.left; at the start of a row, to the end of the one that was wrapped into it.
   */
  public void backspace() {
    int first = cursor.x < screen.left ? 0 : screen.left;
    if (cursor.x > first) {
      cursor.x--;
    } else if (screen.backWrap && cursor.y > screen.top && screen.grid.row(cursor.y - 1).wrapped) {
      cursor.y--;
      cursor.x = screen.right - 1;
    }
    cursor.wrapDue = false;
  }

  /** To the next stop of the tabulator, or several of them. */
  public void tab(int times) {
    int last = screen.lineEnd() - 1;
    for (int i = 0; i < times && cursor.x < last; i++) {
      cursor.x = screen.tabs.next(cursor.x, last);
      cursor.wrapDue = false;
    }
  }

  /** To the stop before, or several of them. */
  public void tabBack(int times) {
    cursor.wrapDue = false;
    int first = cursor.origin ? screen.left : 0;
    for (int i = 0; i < times && cursor.x > first; i++) {
      cursor.x = screen.tabs.before(cursor.x, first);
    }
  }

  public void setTab() {
    screen.tabs.set(cursor.x);
  }

  public void clearTab() {
    screen.tabs.clear(cursor.x);
  }

  public void clearTabs() {
    screen.tabs.clearAll();
  }

  /** Up, stopped by the margin. */
  public void up(int by) {
    cursor.wrapDue = false;
    cursor.y = Math.max(cursor.y - by, cursor.y >= screen.top ? screen.top : 0);
  }

  public void down(int by) {
    cursor.wrapDue = false;
    cursor.y =
        Math.min(cursor.y + by, (cursor.y < screen.bottom ? screen.bottom : screen.rows()) - 1);
  }

  public void forward(int by) {
    cursor.wrapDue = false;
    cursor.x = Math.min(cursor.x + by, screen.lineEnd() - 1);
  }

  public void back(int by) {
    cursor.wrapDue = false;
    cursor.x = Math.max(cursor.x - by, cursor.x >= screen.left ? screen.left : 0);
  }

  /** To a column, counted from the margin in origin mode. */
  public void column(int x) {
    cursor.wrapDue = false;
    int first = cursor.origin ? screen.left : 0;
    int end = cursor.origin ? screen.right : screen.columns();
    cursor.x = Math.max(first, Math.min(first + x, end - 1));
    if (screen.grid.row(cursor.y).size != Row.Size.NORMAL) {
      cursor.x = Math.min(cursor.x, Math.max(0, screen.columns() / 2 - 1));
    }
  }

  /** To a row, counted from the margin in origin mode. */
  public void line(int y) {
    cursor.wrapDue = false;
    int first = cursor.origin ? screen.top : 0;
    int end = cursor.origin ? screen.bottom : screen.rows();
    cursor.y = Math.max(first, Math.min(first + y, end - 1));
  }

  public void moveTo(int x, int y) {
    line(y);
    column(x);
  }
}
