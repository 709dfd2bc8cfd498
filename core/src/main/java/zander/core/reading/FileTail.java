package zander.core.reading;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteReader;

/** How far a growing file was read, and the beginning of the line there. For one thread. */
final class FileTail {
  /** Read at once, in bytes. */
  private static final int PART = 1 << 20;

  /** Read in one look. */
  private static final int MOST = 8 * PART;

  /** So much before the place is looked at again: it shows whether the file was written over. */
  private static final int CHECKED = 64;

  private PagedFile file;

  /** Where the line begins that is not told yet. */
  private long lineStart;

  /** From a little before that line up to the place that was read up to. */
  private byte[] rest = new byte[0];

  private long position;

  /** Of the bytes before {@link #position}; fewer at the file's front, and at first none. */
  private byte[] last = new byte[0];

  private int idleLooks;

  /**
   * @param from where a line begins
   */
  FileTail(PagedFile file, long from) {
    this.file = file;
    this.lineStart = from;
    this.position = from;
  }

  PagedFile file() {
    return file;
  }

  /** Where the line begins that is not told yet. */
  long lineStart() {
    return lineStart;
  }

  /** Up to where it was read, in bytes. */
  long position() {
    return position;
  }

  /** Looks in a row in which nothing had come. */
  int idleLooks() {
    return idleLooks;
  }

  /**
   * The lines that have come up to a size; some of them where it is much. The beginning of a line
   * is told when nothing more of it came by the next look.
   *
   * @return {@code null} when it is not the file it was up to here
   */
  @Nullable List<FileLine> grow(long size) throws IOException {
    if (size < position) {
      return null;
    }
    if (last.length == 0 && position > 0) {
      long from = Math.max(0, position - CHECKED);
      last = file.read(from, (int) (position - from));
    }
    List<FileLine> lines = new ArrayList<>();
    if (size == position) {
      idleLooks++;
      endLine(lines);
      return lines;
    }
    idleLooks = 0;
    for (int read = 0; position < size && read < MOST; ) {
      long from = position - last.length;
      byte[] bytes = file.read(from, (int) Math.min(PART, size - from));
      if (!startsWith(bytes, last)) {
        return null;
      }
      if (bytes.length == last.length) {
        break;
      }
      read += bytes.length;
      byte[] come = Arrays.copyOfRange(bytes, last.length, bytes.length);
      position += come.length;
      last = Arrays.copyOfRange(bytes, Math.max(0, bytes.length - CHECKED), bytes.length);
      cut(come, lines);
    }
    return lines;
  }

  private static boolean startsWith(byte[] bytes, byte[] start) {
    return bytes.length >= start.length
        && Arrays.equals(bytes, 0, start.length, start, 0, start.length);
  }

  private void cut(byte[] come, List<FileLine> lines) {
    byte[] all = Arrays.copyOf(rest, rest.length + come.length);
    System.arraycopy(come, 0, all, rest.length, come.length);
    long at = position - all.length;
    List<Integer> breaks = new ArrayList<>(List.of((int) (lineStart - at)));
    for (int index : LineBreaks.in(all, at)) {
      if (at + index > lineStart) {
        breaks.add(index);
      }
    }
    lines.addAll(LineBreaks.lines(all, at, breaks));
    lineStart = at + breaks.get(breaks.size() - 1);
    // What belongs to a character that a part ends with says where the next part ends.
    long kept = Math.max(at, lineStart - LineBreaks.FOLLOWING);
    rest = Arrays.copyOfRange(all, (int) (kept - at), all.length);
  }

  private void endLine(List<FileLine> lines) {
    int begun = (int) (position - lineStart);
    if (begun > 0) {
      lines.add(LineBreaks.line(rest, position - rest.length, rest.length - begun, rest.length));
      lineStart = position;
      rest = Arrays.copyOfRange(rest, Math.max(0, rest.length - LineBreaks.FOLLOWING), rest.length);
    }
  }

  /** Reads from the front again: it is another content. */
  void startAnew() {
    file = file.emptied();
    lineStart = 0;
    position = 0;
    rest = new byte[0];
    last = new byte[0];
  }

  /** Whether this is the file that was read up to here. */
  boolean isIn(RemoteReader reader) throws IOException {
    return Arrays.equals(reader.read(position - last.length, last.length), last)
        && reader.look().after().size() >= position;
  }
}
