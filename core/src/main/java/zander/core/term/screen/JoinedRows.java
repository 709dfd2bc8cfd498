package zander.core.term.screen;

import java.util.ArrayList;
import java.util.List;

/** The rows of one text, which was wrapped at their ends, put together and wrapped elsewhere. */
final class JoinedRows {
  private final Row all;
  private final int[] starts;
  private final int length;
  private int cursorRow;
  private int cursorCell;

  JoinedRows(List<byte[]> packed) {
    List<Row> rows = new ArrayList<>(packed.size());
    starts = new int[packed.size() + 1];
    for (int i = 0; i < packed.size(); i++) {
      Row row = PackedRow.unpack(packed.get(i), 1);
      rows.add(row);
      starts[i + 1] = starts[i] + (i + 1 < packed.size() ? text(row) : row.filled());
    }
    length = starts[packed.size()];
    all = new Row(Math.max(1, length));
    for (int i = 0; i < rows.size(); i++) {
      all.copy(rows.get(i), 0, starts[i], starts[i + 1] - starts[i]);
    }
    all.wrapped = rows.get(rows.size() - 1).wrapped;
    all.size = rows.get(0).size;
  }

  /** Without the cell at the end that is blank because a wide character did not fit there. */
  private static int text(Row row) {
    int columns = row.used();
    return columns > 0 && row.codes[columns - 1] == Row.BLANK ? columns - 1 : columns;
  }

  /** Where in all of it a cell of one of the rows is. */
  int cell(int row, int cell) {
    return starts[row] + cell;
  }

  /**
   * Wraps it.
   *
   * @param cursor a cell of all, or behind them, to be found again; -1 for none
   */
  List<Row> wrap(int columns, int cursor) {
    List<Row> wrapped = new ArrayList<>();
    int from = 0;
    do {
      int to = Math.min(length, from + columns);
      if (to < length && all.codes[to] == Row.TAIL && to - 1 > from) {
        to--;
      }
      Row row = new Row(columns);
      row.copy(all, from, 0, to - from);
      row.size = all.size;
      row.wrapped = to < length || all.wrapped;
      if (cursor >= from && (cursor < to || to == length)) {
        cursorRow = wrapped.size();
        cursorCell = cursor - from;
      }
      wrapped.add(row);
      from = to;
    } while (from < length);
    return wrapped;
  }

  int cursorRow() {
    return cursorRow;
  }

  int cursorCell() {
    return cursorCell;
  }
}
