package zander.core.term.screen;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * A row as the scrollback keeps it: a flag byte, the count of cells, runs of equal style where any
 * is not plain, runs of equal decoration where there is one, and the characters, a byte each where
 * they are ASCII. Numbers are in groups of seven bits, the lowest first.
 */
final class PackedRow {
  private static final int WRAPPED = 1;
  private static final int STYLED = 2;
  private static final int DECORATED = 4;
  private static final int SIZE_AT = 3;

  /** What stands before a character that is no ASCII one. */
  private static final int NARROW = 0x80;

  private static final int WIDE = 0x81;
  private static final int NARROW_CLUSTER = 0x82;
  private static final int WIDE_CLUSTER = 0x83;

  private byte[] bytes;
  private int at;

  private PackedRow(byte[] bytes, int at) {
    this.bytes = bytes;
    this.at = at;
  }

  /** Packs one row after the other. */
  static PackedRow writer() {
    return new PackedRow(new byte[1024], 0);
  }

  /** Packs it without the cells at its end that have nothing in them. */
  byte[] pack(Row row) {
    int cells = row.wrapped ? row.columns() : row.filled();
    boolean styled = isStyled(row, cells);
    boolean decorated = row.decorations != null;
    at = 0;
    put(
        (row.wrapped ? WRAPPED : 0)
            | (styled ? STYLED : 0)
            | (decorated ? DECORATED : 0)
            | (row.size.ordinal() << SIZE_AT));
    number(cells);
    if (styled) {
      styles(row, cells);
    }
    if (decorated) {
      decorations(row, cells);
    }
    characters(row, cells);
    return Arrays.copyOf(bytes, at);
  }

  private static boolean isStyled(Row row, int cells) {
    long any = 0;
    for (int i = 0; i < cells; i++) {
      any |= row.styles[i];
    }
    return any != CellStyle.PLAIN;
  }

  private void styles(Row row, int cells) {
    for (int i = 0; i < cells; ) {
      int end = i + 1;
      while (end < cells && row.styles[end] == row.styles[i]) {
        end++;
      }
      number(end - i);
      number(row.styles[i]);
      i = end;
    }
  }

  private void decorations(Row row, int cells) {
    for (int i = 0; i < cells; ) {
      Decoration one = row.decoration(i);
      int end = i + 1;
      while (end < cells && same(row.decoration(end), one)) {
        end++;
      }
      number(end - i);
      number(one == null ? 0 : one.underline());
      text(one == null ? "" : one.link());
      text(one == null ? "" : one.linkId());
      i = end;
    }
  }

  private static boolean same(@Nullable Decoration one, @Nullable Decoration other) {
    return one == null ? other == null : one.equals(other);
  }

  private void characters(Row row, int cells) {
    for (int i = ascii(row, 0, cells); i < cells; i = ascii(row, i + 1, cells)) {
      int code = row.codes[i];
      if (code != Row.TAIL) {
        boolean wide = row.width(i) == 2;
        if (code == Row.CLUSTER) {
          put(wide ? WIDE_CLUSTER : NARROW_CLUSTER);
          text(row.cluster(i));
        } else {
          put(wide ? WIDE : NARROW);
          number(code);
        }
      }
    }
  }

  /** Puts ASCII characters, for which there is room, in one go; gives the cell that has none. */
  private int ascii(Row row, int from, int cells) {
    room(cells - from);
    int[] codes = row.codes;
    byte[] into = bytes;
    int to = at;
    int i = from;
    while (i < cells && codes[i] >= 0 && codes[i] < 0x80) {
      into[to++] = (byte) codes[i++];
    }
    at = to;
    return i;
  }

  private void room(int more) {
    if (bytes.length - at < more) {
      bytes = Arrays.copyOf(bytes, Math.max(bytes.length * 2, at + more));
    }
  }

  private void put(int value) {
    if (at == bytes.length) {
      room(1);
    }
    bytes[at++] = (byte) value;
  }

  private void number(long value) {
    long rest = value;
    while ((rest & ~0x7fL) != 0) {
      put((int) ((rest & 0x7f) | 0x80));
      rest >>>= 7;
    }
    put((int) rest);
  }

  private void text(String text) {
    byte[] coded = text.getBytes(StandardCharsets.UTF_8);
    number(coded.length);
    room(coded.length);
    System.arraycopy(coded, 0, bytes, at, coded.length);
    at += coded.length;
  }

  // Reading.

  static boolean isWrapped(byte[] packed) {
    return (packed[0] & WRAPPED) != 0;
  }

  /** How many cells it has. */
  static int cells(byte[] packed) {
    return (int) new PackedRow(packed, 1).number();
  }

  private long number() {
    long value = 0;
    int shift = 0;
    while (true) {
      byte next = bytes[at++];
      value |= (next & 0x7fL) << shift;
      if (next >= 0) {
        return value;
      }
      shift += 7;
    }
  }

  private String text() {
    int length = (int) number();
    String text = new String(bytes, at, length, StandardCharsets.UTF_8);
    at += length;
    return text;
  }

  /**
   * Unpacks it into a row of its own.
   *
   * @param columns the row has at least so many
   */
  static Row unpack(byte[] packed, int columns) {
    PackedRow in = new PackedRow(packed, 0);
    int flags = in.bytes[in.at++];
    int cells = (int) in.number();
    Row row = new Row(Math.max(columns, cells));
    row.wrapped = (flags & WRAPPED) != 0;
    row.size = Row.Size.values()[flags >> SIZE_AT];
    row.use(cells);
    if ((flags & STYLED) != 0) {
      for (int i = 0; i < cells; ) {
        int end = i + (int) in.number();
        Arrays.fill(row.styles, i, end, in.number());
        i = end;
      }
    }
    if ((flags & DECORATED) != 0) {
      for (int i = 0; i < cells; ) {
        int end = i + (int) in.number();
        Decoration one = new Decoration((int) in.number(), in.text(), in.text());
        row.decorate(i, end, one.equals(Decoration.NONE) ? null : one);
        i = end;
      }
    }
    in.charactersOf(row, cells);
    return row;
  }

  private void charactersOf(Row row, int cells) {
    for (int i = 0; i < cells; i++) {
      int kind = bytes[at++] & 0xff;
      if (kind < NARROW) {
        row.codes[i] = kind;
        continue;
      }
      if (kind == NARROW || kind == WIDE) {
        row.codes[i] = (int) number();
      } else {
        row.cluster(i, text());
      }
      if (kind == WIDE || kind == WIDE_CLUSTER) {
        row.codes[++i] = Row.TAIL;
      }
    }
  }
}
