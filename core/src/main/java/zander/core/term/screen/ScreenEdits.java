package zander.core.term.screen;

/**
 * Erases cells of a screen and moves them, as the cursor and the margins say. What comes in blank
 * has the ground of the style in hand.
 */
public final class ScreenEdits {
  private final Screen screen;
  private final Cursor cursor;

  ScreenEdits(Screen screen) {
    this.screen = screen;
    this.cursor = screen.cursor;
  }

  private long blank() {
    return CellStyle.erased(cursor.style);
  }

  /**
   * Erases in the screen (ED, DECSED).
   *
   * @param what 0 from the cursor on, 1 up to the cursor, 2 all, 3 the scrollback
   */
  public void eraseScreen(int what, boolean selective) {
    int rows = screen.rows();
    if ((what == 0 && cursor.x == 0 && cursor.y == 0) || what == 2) {
      if (!selective && !screen.isGuarded()) {
        // A program that clears the screen takes nothing away from whoever wants to read it later.
        screen.grid.keepAll();
      }
      eraseRows(0, rows, selective);
    } else if (what == 0) {
      eraseLine(0, selective);
      eraseRows(cursor.y + 1, rows, selective);
    } else if (what == 1) {
      eraseRows(0, cursor.y, selective);
      eraseLine(1, selective);
    } else if (what == 3 && !selective) {
      screen.scrollback.clear();
    }
  }

  private void eraseRows(int from, int to, boolean selective) {
    for (int y = from; y < to; y++) {
      if (selective || screen.isGuarded()) {
        screen.grid.erase(y, 0, screen.columns(), blank(), true);
      } else {
        screen.grid.clear(y, y + 1, blank());
      }
    }
  }

  /**
   * Erases in the row of the cursor (EL, DECSEL).
   *
   * @param what 0 from the cursor on, 1 up to and with the cursor, 2 all
   */
  public void eraseLine(int what, boolean selective) {
    int from = what == 0 ? cursor.x : 0;
    int to = what == 1 ? cursor.x + 1 : screen.columns();
    if (what >= 0 && what <= 2) {
      screen.grid.erase(cursor.y, from, to, blank(), selective || screen.isGuarded());
      cursor.wrapDue = false;
    }
  }

  /** Erases so many cells from the cursor on (ECH). */
  public void eraseCells(int count) {
    int to = Math.min(screen.columns(), cursor.x + count);
    screen.grid.erase(cursor.y, cursor.x, to, blank(), screen.isGuarded());
    cursor.wrapDue = false;
  }

  /** Makes room at the cursor (ICH). */
  public void insertCells(int count) {
    cursor.wrapDue = false;
    if (cursor.x >= screen.left && cursor.x < screen.right) {
      screen.grid.insert(cursor.y, cursor.x, screen.lineEnd(), count, blank());
    }
  }

  /** Takes cells out at the cursor (DCH). */
  public void deleteCells(int count) {
    cursor.wrapDue = false;
    if (cursor.x >= screen.left && cursor.x < screen.right) {
      screen.grid.delete(cursor.y, cursor.x, screen.lineEnd(), count, blank());
    }
  }

  /** Makes room for rows at the cursor, whose row it goes to the start of (IL). */
  public void insertRows(int count) {
    if (screen.isInMargins()) {
      screen.grid.scrollDown(fromCursor(), count, blank());
      screen.moves().carriageReturn();
    }
  }

  /** Takes rows out at the cursor (DL). */
  public void deleteRows(int count) {
    if (screen.isInMargins()) {
      screen.grid.moveUp(fromCursor(), count, blank());
      screen.moves().carriageReturn();
    }
  }

  private Grid.Area fromCursor() {
    return new Grid.Area(cursor.y, screen.bottom, screen.left, screen.right);
  }

  /** Moves what is between the margins up (SU). */
  public void scrollUp(int count) {
    screen.grid.scrollUp(screen.margins(), count, blank());
  }

  /** Moves what is between the margins down (SD). */
  public void scrollDown(int count) {
    screen.grid.scrollDown(screen.margins(), count, blank());
  }

  /** Makes room for columns at the cursor, between the margins (DECIC). */
  public void insertColumns(int count) {
    columns(cursor.x, count, true);
  }

  /** Takes columns out at the cursor (DECDC). */
  public void deleteColumns(int count) {
    columns(cursor.x, count, false);
  }

  /** Moves what is between the margins to the left (SL). */
  public void scrollLeft(int count) {
    columns(screen.left, count, false);
  }

  /** Moves what is between the margins to the right (SR). */
  public void scrollRight(int count) {
    columns(screen.left, count, true);
  }

  private void columns(int x, int count, boolean insert) {
    if (!screen.isInMargins()) {
      return;
    }
    cursor.wrapDue = false;
    for (int y = screen.top; y < screen.bottom; y++) {
      if (insert) {
        screen.grid.insert(y, x, screen.right, count, blank());
      } else {
        screen.grid.delete(y, x, screen.right, count, blank());
      }
    }
  }

  /** One column back; at the left margin the area moves right (DECBI). */
  public void backIndex() {
    if (cursor.x == screen.left) {
      scrollRight(1);
    } else {
      screen.moves().back(1);
    }
  }

  /** One column on; at the right margin the area moves left (DECFI). */
  public void forwardIndex() {
    if (cursor.x == screen.right - 1) {
      scrollLeft(1);
    } else {
      screen.moves().forward(1);
    }
  }

  /** Fills the screen with E, to align by (DECALN). */
  public void align() {
    screen.resetMargins();
    screen.moves().moveTo(0, 0);
    for (int y = 0; y < screen.rows(); y++) {
      Row row = screen.grid.row(y);
      screen.grid.clear(y, y + 1, CellStyle.PLAIN);
      java.util.Arrays.fill(row.codes, 'E');
      row.use(row.columns());
    }
  }

  /** Draws the row of the cursor in another size (DECDWL, DECDHL). */
  public void size(Row.Size size) {
    Row row = screen.grid.touch(screen.grid.row(cursor.y));
    row.size = size;
    if (size != Row.Size.NORMAL) {
      screen.grid.erase(cursor.y, screen.columns() / 2, screen.columns(), blank(), false);
      cursor.x = Math.min(cursor.x, Math.max(0, screen.columns() / 2 - 1));
    }
  }
}
