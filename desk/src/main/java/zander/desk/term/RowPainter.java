package zander.desk.term;

import javafx.geometry.VPos;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.paint.Color;
import javafx.scene.text.Font;
import javafx.scene.text.FontPosture;
import javafx.scene.text.FontWeight;
import javafx.scene.text.Text;
import zander.core.term.TerminalModes.CursorShape;
import zander.core.term.screen.CellStyle;
import zander.core.term.screen.Decoration;
import zander.core.term.screen.Row;

/** Draws rows of a terminal into a canvas: grounds, marks, characters and lines, in this order. */
final class RowPainter {
  static final double PADDING = 8;
  private static final String FAMILY = "JetBrains Mono";
  private static final int FIRST_BRAILLE = 0x2800;
  private static final int LAST_BRAILLE = 0x28ff;

  private final GraphicsContext g;
  private final TerminalColours colours;
  private final Font[] faces = new Font[4];
  private final double cellWidth;
  private final double cellHeight;

  /** Columns of a row that are marked. */
  record Mark(int from, int to, Color colour) {}

  RowPainter(GraphicsContext g, TerminalColours colours, double size) {
    this.g = g;
    this.colours = colours;
    for (int i = 0; i < faces.length; i++) {
      faces[i] =
          Font.font(
              FAMILY,
              (i & 1) == 0 ? FontWeight.NORMAL : FontWeight.BOLD,
              (i & 2) == 0 ? FontPosture.REGULAR : FontPosture.ITALIC,
              size);
    }
    Text probe = new Text("M".repeat(100));
    probe.setFont(faces[0]);
    cellWidth = probe.getLayoutBounds().getWidth() / 100;
    cellHeight = Math.ceil(probe.getLayoutBounds().getHeight() * 1.08);
  }

  double cellWidth() {
    return cellWidth;
  }

  double cellHeight() {
    return cellHeight;
  }

  /** The left edge of a column, in whole pixels, so that neighbours meet. */
  double x(int column) {
    return Math.rint(PADDING + column * cellWidth);
  }

  double y(int line) {
    return PADDING + line * cellHeight;
  }

  /**
   * Draws a row where the picture has its line.
   *
   * @param dark leaves out what blinks
   * @return whether any of it blinks
   */
  boolean paint(Row row, int line, int columns, Iterable<Mark> marks, boolean dark) {
    double y = y(line);
    g.setFill(colours.ground());
    g.fillRect(0, y, x(columns) + PADDING + cellWidth, cellHeight);
    if (row.size() != Row.Size.NORMAL) {
      return stretched(row, line, columns, marks, dark);
    }
    int end = Math.min(row.used(), columns);
    grounds(row, end, y);
    for (Mark mark : marks) {
      g.setFill(mark.colour());
      fill(mark.from(), mark.to(), y, cellHeight);
    }
    g.setTextBaseline(VPos.CENTER);
    boolean blinks = false;
    for (int from = 0; from < end; ) {
      int to = run(row, from, end);
      boolean blinking = CellStyle.has(row.style(from), CellStyle.BLINK);
      blinks |= blinking;
      if (!(blinking && dark)) {
        text(row, from, to, y);
      }
      from = to;
    }
    return blinks;
  }

  /** Twice as wide, and half of it twice as high (DECDWL, DECDHL). */
  private boolean stretched(Row row, int line, int columns, Iterable<Mark> marks, boolean dark) {
    Row.Size size = row.size();
    double y = y(line);
    Row plain = row.plain();
    g.save();
    g.beginPath();
    g.rect(0, y, x(columns) + PADDING, cellHeight);
    g.clip();
    boolean high = size != Row.Size.WIDE;
    double lower = size == Row.Size.BOTTOM_HALF ? cellHeight : 0;
    g.translate(-PADDING, high ? -y - lower : 0);
    g.scale(2, high ? 2 : 1);
    boolean blinks = paint(plain, line, columns / 2, marks, dark);
    g.restore();
    return blinks;
  }

  /** As far as the style is the same. */
  private static int run(Row row, int from, int end) {
    int to = from + 1;
    while (to < end
        && row.style(to) == row.style(from)
        && row.decoration(to) == row.decoration(from)) {
      to++;
    }
    return to;
  }

  private void grounds(Row row, int end, double y) {
    Color plain = colours.ground();
    for (int from = 0; from < end; ) {
      int to = run(row, from, end);
      Color ground = colours.of(row.style(from)).ground();
      if (!ground.equals(plain)) {
        g.setFill(ground);
        fill(from, to, y, cellHeight);
      }
      from = to;
    }
  }

  private void fill(int from, int to, double y, double height) {
    g.fillRect(x(from), y, x(to) - x(from), height);
  }

  private void text(Row row, int from, int to, double y) {
    long style = row.style(from);
    Color ink = colours.of(style).ink();
    g.setFill(ink);
    g.setStroke(ink);
    g.setFont(face(style));
    for (int column = from; column < to; ) {
      int end = column;
      while (end < to && row.code(end) >= 0 && row.code(end) < 0x7f) {
        end++;
      }
      if (end > column) {
        ascii(row, column, end, y);
        column = end;
      } else {
        cell(row, column, y);
        column += row.width(column);
      }
    }
    lines(row, from, to, y, ink);
  }

  private Font face(long style) {
    int bold = CellStyle.has(style, CellStyle.BOLD) ? 1 : 0;
    return faces[bold | (CellStyle.has(style, CellStyle.ITALIC) ? 2 : 0)];
  }

  /** ASCII goes out in one call, but for blanks at its ends. */
  private void ascii(Row row, int from, int to, double y) {
    String text = row.text(from, to);
    if (!text.isBlank()) {
      g.fillText(text.stripTrailing(), PADDING + from * cellWidth, y + cellHeight / 2);
    }
  }

  /**
   * Draws the cursor over what is in its cell.
   *
   * @param hasKeys whether what is typed goes there; else it is an outline
   */
  void cursor(Row row, int column, int line, CursorShape shape, boolean hasKeys) {
    int at = column > 0 && row.code(column) == Row.TAIL ? column - 1 : column;
    double x = x(at);
    double width = x(at + row.width(at)) - x;
    double y = y(line);
    if (!hasKeys) {
      g.setStroke(colours.cursor());
      g.setLineWidth(1);
      g.strokeRect(x + 0.5, y + 0.5, width - 1, cellHeight - 1);
      return;
    }
    g.setFill(colours.cursor());
    switch (shape) {
      case BLOCK -> {
        g.fillRect(x, y, width, cellHeight);
        g.setFill(colours.ground());
        g.setStroke(colours.ground());
        g.setFont(face(row.style(at)));
        cell(row, at, y);
      }
      case UNDERLINE -> g.fillRect(x, y + cellHeight - 3, width, 3);
      case BAR -> g.fillRect(x, y, 2, cellHeight);
    }
  }

  /** Other characters cell by cell: a glyph of another font may be wider than its cell. */
  private void cell(Row row, int column, double y) {
    int code = row.code(column);
    double left = x(column);
    double width = x(column + row.width(column)) - left;
    if (BoxShapes.has(code)) {
      BoxShapes.draw(g, code, left, y, width, cellHeight);
    } else if (code >= FIRST_BRAILLE && code <= LAST_BRAILLE) {
      braille(code - FIRST_BRAILLE, left, y, width);
    } else {
      String text = row.text(column);
      if (!text.isBlank()) {
        g.fillText(text, left, y + cellHeight / 2, width + 1);
      }
    }
  }

  /** Dots 1 to 3 and 7 at the left, 4 to 6 and 8 at the right, from above. */
  private void braille(int dots, double x, double y, double width) {
    double size = Math.max(1, Math.rint(width / 4));
    for (int i = 0; i < 8; i++) {
      if (((dots >> i) & 1) != 0) {
        int column = i < 6 ? i / 3 : i - 6;
        int line = i < 6 ? i % 3 : 3;
        g.fillRect(
            Math.rint(x + width * (1 + 2 * column) / 4 - size / 2),
            Math.rint(y + cellHeight * (1 + 2 * line) / 8 - size / 2),
            size,
            size);
      }
    }
  }

  private void lines(Row row, int from, int to, double y, Color ink) {
    long style = row.style(from);
    Decoration decoration = row.decoration(from);
    double bottom = y + cellHeight;
    int way = CellStyle.underline(style);
    if (way != CellStyle.NONE) {
      g.setFill(colours.underline(decoration == null ? 0 : decoration.underline(), ink));
      underline(way, from, to, bottom);
    } else if (decoration != null && !decoration.link().isEmpty()) {
      underline(CellStyle.DOTTED, from, to, bottom);
    }
    g.setFill(ink);
    if (CellStyle.has(style, CellStyle.STRIKE)) {
      fill(from, to, y + Math.rint(cellHeight / 2), 1);
    }
    if (CellStyle.has(style, CellStyle.OVERLINE)) {
      fill(from, to, y, 1);
    }
  }

  private void underline(int way, int from, int to, double bottom) {
    double start = x(from);
    double end = x(to);
    switch (way) {
      case CellStyle.DOUBLE -> {
        fill(from, to, bottom - 4, 1);
        fill(from, to, bottom - 2, 1);
      }
      case CellStyle.CURLY -> {
        for (double x = start; x < end; x += 1) {
          double up = Math.rint(1 + Math.sin((x - start) * Math.PI / 3) * 1.2);
          g.fillRect(x, bottom - 2 - up, 1, 1.4);
        }
      }
      case CellStyle.DOTTED -> dashes(start, end, bottom, 1, 2);
      case CellStyle.DASHED -> dashes(start, end, bottom, 4, 3);
      default -> fill(from, to, bottom - 2, 1);
    }
  }

  private void dashes(double start, double end, double bottom, double length, double gap) {
    for (double x = start; x < end; x += length + gap) {
      g.fillRect(x, bottom - 2, Math.min(length, end - x), 1);
    }
  }
}
