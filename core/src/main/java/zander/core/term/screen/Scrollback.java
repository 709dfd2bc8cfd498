package zander.core.term.screen;

import java.util.ArrayList;
import java.util.List;

/**
 * The rows that have left the screen at its top, packed, the oldest first. Bounded by count and by
 * bytes: the oldest go.
 */
public final class Scrollback {
  /** What the Java machine takes for an array beside its bytes, and for the place that holds it. */
  private static final int OVERHEAD = 24;

  private final int mostRows;
  private final long mostBytes;
  private final PackedRow packer = PackedRow.writer();
  private byte[][] rows = new byte[64][];
  private int first;
  private int count;
  private long bytes;
  private long gone;

  /**
   * @param mostBytes with what each row takes beside its content
   */
  public Scrollback(int mostRows, long mostBytes) {
    this.mostRows = mostRows;
    this.mostBytes = mostBytes;
  }

  /** How many rows there are. */
  public int count() {
    return count;
  }

  /** How many were let go of since the start. */
  public long gone() {
    return gone;
  }

  /** What it takes of memory, nearly. */
  public long bytes() {
    return bytes;
  }

  private int place(int index) {
    int at = first + index;
    return at < rows.length ? at : at - rows.length;
  }

  byte[] packed(int index) {
    return rows[place(index)];
  }

  /**
   * A copy of a row.
   *
   * @param index from 0 for the oldest
   * @param columns it has at least so many
   */
  public Row row(int index, int columns) {
    return PackedRow.unpack(packed(index), columns);
  }

  void add(Row row) {
    add(packer.pack(row));
  }

  void add(byte[] packed) {
    if (count == rows.length) {
      grow();
    }
    rows[place(count)] = packed;
    count++;
    bytes += packed.length + OVERHEAD;
    while (count > mostRows || (bytes > mostBytes && count > 0)) {
      bytes -= rows[first].length + OVERHEAD;
      rows[first] = null;
      first = place(1);
      count--;
      gone++;
    }
  }

  private void grow() {
    byte[][] more = new byte[rows.length * 2][];
    for (int i = 0; i < count; i++) {
      more[i] = packed(i);
    }
    rows = more;
    first = 0;
  }

  /** Takes the newest away, for the screen. */
  Row takeLast(int columns) {
    count--;
    int at = place(count);
    Row row = PackedRow.unpack(rows[at], columns);
    bytes -= rows[at].length + OVERHEAD;
    rows[at] = null;
    return row;
  }

  void clear() {
    gone += count;
    rows = new byte[64][];
    first = 0;
    count = 0;
    bytes = 0;
  }

  /** Takes all rows out. */
  List<byte[]> takeAll() {
    List<byte[]> all = new ArrayList<>(count);
    for (int i = 0; i < count; i++) {
      all.add(packed(i));
    }
    long before = gone;
    clear();
    gone = before;
    return all;
  }
}
