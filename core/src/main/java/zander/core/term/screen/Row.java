package zander.core.term.screen;

import java.util.Arrays;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * One row of cells. A cell holds a character, a {@link #CLUSTER} of several, nothing ({@link
 * #BLANK}), or is the right half of the wide one before it ({@link #TAIL}).
 */
public final class Row {
  public static final int BLANK = 0;
  public static final int TAIL = -1;
  public static final int CLUSTER = -2;

  /** How the whole row is drawn (DECDWL, DECDHL). */
  public enum Size {
    NORMAL,
    WIDE,
    TOP_HALF,
    BOTTOM_HALF
  }

  final int[] codes;
  final long[] styles;
  String @Nullable [] clusters;
  Decoration @Nullable [] decorations;
  boolean wrapped;
  Size size = Size.NORMAL;

  /** Counts up with each change of any row, so that the latest change of two is known. */
  long stamp;

  /** No cell from here on has a character, a style or a decoration. */
  private int used;

  Row(int columns) {
    codes = new int[columns];
    styles = new long[columns];
  }

  public int columns() {
    return codes.length;
  }

  /** What is in a cell: a character, {@link #BLANK}, {@link #TAIL} or {@link #CLUSTER}. */
  public int code(int column) {
    return codes[column];
  }

  public long style(int column) {
    return styles[column];
  }

  /** Null where there is none. */
  public @Nullable Decoration decoration(int column) {
    return decorations == null ? null : decorations[column];
  }

  /** Of a cell whose character is {@link #CLUSTER}, which has one. */
  String cluster(int column) {
    return Objects.requireNonNull(clusters)[column];
  }

  /** The text of a cell: empty for a blank one and a right half. */
  public String text(int column) {
    int code = codes[column];
    return code > 0 ? Character.toString(code) : code == CLUSTER ? cluster(column) : "";
  }

  /** How many cells what begins here takes. */
  public int width(int column) {
    return column + 1 < codes.length && codes[column + 1] == TAIL ? 2 : 1;
  }

  /** Whether the text goes on in the next row, because this one was full. */
  public boolean isWrapped() {
    return wrapped;
  }

  public Size size() {
    return size;
  }

  /** Changes whenever the row does. */
  public long stamp() {
    return stamp;
  }

  /** How many cells at the start may have something in them. */
  public int used() {
    return used;
  }

  void use(int to) {
    used = Math.max(used, to);
  }

  /** Cells up to here have something in them, exactly. */
  int filled() {
    int end = used;
    while (end > 0
        && codes[end - 1] == BLANK
        && styles[end - 1] == CellStyle.PLAIN
        && decoration(end - 1) == null) {
      end--;
    }
    return end;
  }

  /** Cells up to here have a character. */
  public int written() {
    int end = used;
    while (end > 0 && codes[end - 1] == BLANK) {
      end--;
    }
    return end;
  }

  void cluster(int column, String text) {
    if (clusters == null) {
      clusters = new String[codes.length];
    }
    codes[column] = CLUSTER;
    clusters[column] = text;
  }

  void decorate(int from, int to, @Nullable Decoration decoration) {
    if (decoration != null && decorations == null) {
      decorations = new Decoration[codes.length];
    }
    if (decorations != null) {
      Arrays.fill(decorations, from, to, decoration);
    }
  }

  /** Makes cells blank in a style. */
  void erase(int from, int to, long style) {
    int end = style == CellStyle.PLAIN ? Math.min(to, used) : to;
    if (from < end) {
      Arrays.fill(codes, from, end, BLANK);
      Arrays.fill(styles, from, end, style);
      decorate(from, end, null);
    }
    if (style != CellStyle.PLAIN) {
      use(to);
    } else if (to >= used) {
      used = Math.min(used, from);
    }
  }

  /** Makes it as new, in a style. */
  void clear(long style) {
    erase(0, codes.length, style);
    clusters = null;
    decorations = null;
    wrapped = false;
    size = Size.NORMAL;
  }

  /** Copies cells of a row, maybe this one; halves that are cut off become blank elsewhere. */
  void copy(Row from, int at, int to, int count) {
    System.arraycopy(from.codes, at, codes, to, count);
    System.arraycopy(from.styles, at, styles, to, count);
    if (from.clusters != null) {
      clusters = clusters == null ? new String[codes.length] : clusters;
      System.arraycopy(from.clusters, at, clusters, to, count);
    }
    if (from.decorations != null) {
      decorations = decorations == null ? new Decoration[codes.length] : decorations;
      System.arraycopy(from.decorations, at, decorations, to, count);
    } else {
      decorate(to, to + count, null);
    }
    use(Math.min(codes.length, to + count));
  }

  /** A copy that stays as it is, with the same stamp. */
  public Row copy() {
    Row copy = new Row(codes.length);
    copy.copy(this, 0, 0, codes.length);
    copy.used = used;
    copy.wrapped = wrapped;
    copy.size = size;
    copy.stamp = stamp;
    return copy;
  }

  /** A copy in the ordinary size. */
  public Row plain() {
    Row plain = copy();
    plain.size = Size.NORMAL;
    return plain;
  }

  /**
   * Sees to it that no wide character is cut at an edge between two cells: its halves become blank.
   */
  void cut(int column) {
    if (column > 0 && column < codes.length && codes[column] == TAIL) {
      erase(column - 1, column + 1, CellStyle.PLAIN);
    }
  }

  /** The text of it, blank cells as spaces, without those at the end. */
  public String text() {
    return text(0, written());
  }

  /** The text of some cells, blank ones as spaces. */
  public String text(int from, int to) {
    StringBuilder text = new StringBuilder(to - from);
    for (int column = from; column < to; column++) {
      int code = codes[column];
      if (code > 0) {
        text.appendCodePoint(code);
      } else if (code == CLUSTER) {
        text.append(cluster(column));
      } else if (code == BLANK) {
        text.append(' ');
      }
    }
    return text.toString();
  }
}
