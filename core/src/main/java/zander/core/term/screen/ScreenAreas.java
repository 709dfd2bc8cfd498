package zander.core.term.screen;

import java.util.Arrays;
import java.util.function.LongUnaryOperator;

/** Fills, copies and restyles rectangles of a screen (DEC, VT510's manual, chapter 5). */
public final class ScreenAreas {
  private final Screen screen;
  private final Cursor cursor;

  public ScreenAreas(Screen screen) {
    this.screen = screen;
    this.cursor = screen.cursor;
  }

  /**
   * A rectangle that a sequence means, in origin mode from the margins on.
   *
   * @param bottom the first row after it
   * @param right the first column after it
   */
  public record Area(int top, int bottom, int left, int right) {}

  /**
   * Fills a rectangle with a character (DECFRA), or erases it (DECERA, DECSERA).
   *
   * @param code 0x20 to erase
   */
  public void fill(Area within, int code, boolean selective) {
    Grid.Area area = inside(within);
    for (int y = area.top(); y < area.bottom(); y++) {
      screen.grid.erase(y, area.left(), area.right(), CellStyle.erased(cursor.style), selective);
      if (code > ' ') {
        Row row = screen.grid.row(y);
        Arrays.fill(row.codes, area.left(), area.right(), code);
        Arrays.fill(row.styles, area.left(), area.right(), cursor.style);
        row.use(area.right());
      }
    }
  }

  /** Copies a rectangle to another place (DECCRA). */
  public void copy(Area from, int top, int left) {
    Grid.Area source = inside(from);
    Grid.Area target =
        inside(
            new Area(
                top,
                top + source.bottom() - source.top(),
                left,
                left + source.right() - source.left()));
    int height = target.bottom() - target.top();
    int width = target.right() - target.left();
    boolean down = target.top() > source.top();
    for (int i = 0; i < height && width > 0; i++) {
      int step = down ? height - 1 - i : i;
      Row out = screen.grid.row(source.top() + step);
      Row row = screen.grid.touch(screen.grid.row(target.top() + step));
      out.cut(source.left());
      out.cut(source.left() + width);
      row.cut(target.left());
      row.cut(target.right());
      row.copy(out, source.left(), target.left(), width);
    }
  }

  /**
   * Changes how cells look (DECCARA, DECRARA): all of a rectangle, or those that have something in
   * them from its first cell along the rows to its last.
   */
  public void restyle(Area within, LongUnaryOperator change) {
    boolean asText = screen.isRestylingText();
    Grid.Area area = asText ? clipped(within) : inside(within);
    int lineStart = cursor.origin ? screen.left : 0;
    int lineEnd = cursor.origin ? screen.right : screen.columns();
    for (int y = area.top(); y < area.bottom(); y++) {
      int from = asText && y > area.top() ? lineStart : area.left();
      int to = asText && y < area.bottom() - 1 ? lineEnd : area.right();
      Row row = screen.grid.touch(screen.grid.row(y));
      for (int x = from; x < to; x++) {
        if (!asText || row.codes[x] != Row.BLANK) {
          row.styles[x] = change.applyAsLong(row.styles[x]);
        }
      }
      row.use(to);
    }
  }

  private Grid.Area inside(Area area) {
    Grid.Area clipped = clipped(area);
    return new Grid.Area(
        clipped.top(),
        Math.max(clipped.top(), clipped.bottom()),
        clipped.left(),
        Math.max(clipped.left(), clipped.right()));
  }

  /** Held to the screen or, in origin mode, to the margins; it may end before it begins. */
  private Grid.Area clipped(Area area) {
    int firstRow = cursor.origin ? screen.top : 0;
    int firstColumn = cursor.origin ? screen.left : 0;
    int bottom = cursor.origin ? screen.bottom : screen.rows();
    int right = cursor.origin ? screen.right : screen.columns();
    return new Grid.Area(
        Math.min(area.top() + firstRow, screen.rows()),
        Math.min(area.bottom() + firstRow, bottom),
        Math.min(area.left() + firstColumn, screen.columns()),
        Math.min(area.right() + firstColumn, right));
  }
}
