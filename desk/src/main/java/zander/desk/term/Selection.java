package zander.desk.term;

import java.util.function.LongFunction;
import zander.core.term.TerminalPicture;
import zander.core.term.screen.Row;

/**
 * The text somebody marked: from one cell edge to another, or a block of columns. Rows are numbers
 * of {@link TerminalPicture}, so it stays on its text while that moves up.
 */
final class Selection {
  private long startRow;
  private int startColumn;
  private long endRow;
  private int endColumn;
  private boolean block;

  void clear() {
    start(0, 0, false);
  }

  boolean isEmpty() {
    return startRow == endRow && startColumn == endColumn;
  }

  void start(long row, int column, boolean inBlock) {
    startRow = row;
    startColumn = column;
    endRow = row;
    endColumn = column;
    block = inBlock;
  }

  void extend(long row, int column) {
    endRow = row;
    endColumn = column;
  }

  /** Marks a row, with all that was wrapped into it and out of it. */
  void selectLine(long row, LongFunction<Row> rows) {
    long first = row;
    while (isWrapped(rows.apply(first - 1))) {
      first--;
    }
    long last = row;
    while (isWrapped(rows.apply(last))) {
      last++;
    }
    start(first, 0, false);
    Row end = rows.apply(last);
    extend(last, end == null ? 0 : end.columns());
  }

  private static boolean isWrapped(Row row) {
    return row != null && row.isWrapped();
  }

  /** Marks the word around a cell: letters, digits, and what stands in paths and addresses. */
  void selectWord(long number, int column, Row row) {
    int from = Math.min(column, row.columns());
    int to = from;
    while (from > 0 && isWord(row, from - 1)) {
      from--;
    }
    while (to < row.columns() && isWord(row, to)) {
      to++;
    }
    start(number, from, false);
    extend(number, to);
  }

  private static boolean isWord(Row row, int column) {
    int c = row.code(column);
    return c == Row.TAIL
        || c == Row.CLUSTER
        || Character.isLetterOrDigit(Math.max(c, 0))
        || (c > 0 && "-_./~@:%+=".indexOf(c) >= 0);
  }

  private boolean isBackward() {
    return endRow < startRow || (endRow == startRow && endColumn < startColumn);
  }

  private long firstRow() {
    return Math.min(startRow, endRow);
  }

  private long lastRow() {
    return Math.max(startRow, endRow);
  }

  /** The first marked column of a row. */
  int from(long row) {
    if (row < firstRow() || row > lastRow()) {
      return 0;
    }
    if (block) {
      return Math.min(startColumn, endColumn);
    }
    return row > firstRow() ? 0 : isBackward() ? endColumn : startColumn;
  }

  /** The column after the last marked one of a row; not above {@link #from} for none. */
  int to(long row, int columns) {
    if (row < firstRow() || row > lastRow()) {
      return 0;
    }
    if (block) {
      return Math.max(startColumn, endColumn);
    }
    return row < lastRow() ? columns : isBackward() ? startColumn : endColumn;
  }

  /** What is marked; rows that the text was wrapped in are one line. */
  String text(LongFunction<Row> rows) {
    StringBuilder text = new StringBuilder();
    for (long number = firstRow(); number <= lastRow(); number++) {
      Row row = rows.apply(number);
      if (row == null) {
        continue;
      }
      int from = Math.min(from(number), row.columns());
      int to = Math.min(to(number, row.columns()), row.written());
      String part = row.text(from, Math.max(from, to));
      boolean goesOn = row.isWrapped() && !block;
      text.append(goesOn ? part : part.stripTrailing());
      if (number < lastRow() && !goesOn) {
        text.append('\n');
      }
    }
    return text.toString();
  }
}
