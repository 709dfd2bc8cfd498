package zander.desk.term;

/** The text somebody marked with the mouse: from one cell edge to another, rows as on screen. */
final class Selection {
  private int startRow;
  private int startColumn;
  private int endRow;
  private int endColumn;

  void clear() {
    start(0, 0);
  }

  void start(int row, int column) {
    startRow = row;
    startColumn = column;
    endRow = row;
    endColumn = column;
  }

  void extend(int row, int column) {
    endRow = row;
    endColumn = column;
  }

  void selectRow(int row, int columns) {
    start(row, 0);
    extend(row, columns);
  }

  /** Marks the word around a cell: letters, digits, and what stands in paths and addresses. */
  void selectWord(TerminalModel model, int row, int column) {
    String text = model.rowText(row);
    int from = Math.min(column, text.length());
    int to = from;
    while (from > 0 && isWord(text.charAt(from - 1))) {
      from--;
    }
    while (to < text.length() && isWord(text.charAt(to))) {
      to++;
    }
    start(row, from);
    extend(row, to);
  }

  private static boolean isWord(char c) {
    return Character.isLetterOrDigit(c) || "-_./~@:%+=".indexOf(c) >= 0;
  }

  private boolean isBackward() {
    return endRow < startRow || (endRow == startRow && endColumn < startColumn);
  }

  private int firstRow() {
    return isBackward() ? endRow : startRow;
  }

  private int lastRow() {
    return isBackward() ? startRow : endRow;
  }

  /** The first marked column of a row. */
  int from(int row) {
    if (row < firstRow() || row > lastRow()) {
      return 0;
    }
    return row > firstRow() ? 0 : isBackward() ? endColumn : startColumn;
  }

  /** The column after the last marked one of a row; not above {@link #from} for none. */
  int to(int row, int columns) {
    if (row < firstRow() || row > lastRow()) {
      return 0;
    }
    return row < lastRow() ? columns : isBackward() ? startColumn : endColumn;
  }

  String text(TerminalModel model) {
    StringBuilder text = new StringBuilder();
    for (int row = firstRow(); row <= lastRow(); row++) {
      String line = model.rowText(row);
      int from = Math.min(from(row), line.length());
      int to = Math.min(to(row, model.columns()), line.length());
      text.append(row > firstRow() ? "\n" : "").append(line, from, Math.max(from, to));
    }
    return text.toString();
  }
}
