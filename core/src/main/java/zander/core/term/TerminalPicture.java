package zander.core.term;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import zander.core.term.screen.Row;
import zander.core.term.screen.Screen;

/**
 * Some rows as they were at one time, and the cursor. Rows that have not changed are the same
 * objects as in the picture before, which is how whoever draws them knows.
 *
 * @param version of the terminal, that it shows
 * @param columns of the screen
 * @param firstRow the number of the first row, as {@link Screen#topRow} has numbers
 * @param topRow the number of the screen's first row
 * @param cursorX the cursor's column
 * @param cursorRow the number of the cursor's row
 */
public record TerminalPicture(
    long version,
    int columns,
    List<Row> rows,
    long firstRow,
    long topRow,
    int cursorX,
    long cursorRow) {
  /** Stands for the rows of the screen. */
  public static final long SCREEN = Long.MAX_VALUE;

  static TerminalPicture of(
      Screen screen, long version, long from, @Nullable TerminalPicture before) {
    long top = screen.topRow();
    long first = Math.max(screen.firstRow(), Math.min(from, top));
    List<Row> rows = new ArrayList<>(screen.rows());
    for (int i = 0; i < screen.rows(); i++) {
      rows.add(row(screen, first + i, before));
    }
    return new TerminalPicture(
        version, screen.columns(), rows, first, top, screen.cursorX(), top + screen.cursorY());
  }

  private static Row row(Screen screen, long number, @Nullable TerminalPicture before) {
    Row known = before == null || before.columns != screen.columns() ? null : before.row(number);
    boolean onScreen = number >= screen.topRow();
    if (known != null && known.stamp() == (onScreen ? stamp(screen, number) : -number - 1)) {
      return known;
    }
    Row row = Objects.requireNonNull(screen.rowOf(number));
    return onScreen ? row.copy() : row;
  }

  private static long stamp(Screen screen, long number) {
    return screen.row((int) (number - screen.topRow())).stamp();
  }

  /** The row of a number; null where it does not show it. */
  public @Nullable Row row(long number) {
    long index = number - firstRow;
    return index >= 0 && index < rows.size() ? rows.get((int) index) : null;
  }

  /** Whether it shows the screen, and nothing that has left it. */
  public boolean isScreen() {
    return firstRow == topRow;
  }
}
