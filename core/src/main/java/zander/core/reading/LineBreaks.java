package zander.core.reading;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import zander.core.work.VisibleText;

/**
 * Where lines begin in a part of a file. A line of any length is cut into parts of at least {@link
 * #LONG} bytes, at places that depend only on the {@code LONG} bytes before them, so that they are
 * the same whichever part of the file was read.
 *
 * <p>There is a break behind each line end, and at each multiple of {@code LONG} with no line end
 * in the {@code LONG} bytes before it, moved behind the bytes that belong to the character there
 * (RFC 3629, section 3).
 */
final class LineBreaks {
  static final int LONG = 8 * 1024;

  /** At most so many bytes of a character follow its first (RFC 3629). */
  static final int FOLLOWING = 3;

  /** A line and a part of one have at most so many bytes. */
  static final int LONGEST = 2 * LONG + FOLLOWING;

  private static final Charset OTHER =
      Charset.isSupported("windows-1252")
          ? Charset.forName("windows-1252")
          : StandardCharsets.ISO_8859_1;

  private LineBreaks() {}

  /**
   * Breaks within bytes that lie somewhere in a file.
   *
   * @param at where they lie
   * @return the indexes of all breaks that these bytes show: none at their front, and at their end
   *     only behind a line end
   */
  static List<Integer> in(byte[] bytes, long at) {
    List<Integer> breaks = new ArrayList<>();
    // No line end is known since here.
    int since = 0;
    int next = firstMultiple(at);
    for (int i = 0; i <= bytes.length; i++) {
      if (i == next) {
        if (next - since >= LONG) {
          int moved = behindCharacter(bytes, next);
          if (moved < bytes.length) {
            breaks.add(moved);
          }
        }
        next += LONG;
      }
      if (i < bytes.length && bytes[i] == '\n') {
        since = i + 1;
        breaks.add(since);
      }
    }
    return breaks;
  }

  private static int firstMultiple(long at) {
    return (int) ((LONG - at % LONG) % LONG);
  }

  private static int behindCharacter(byte[] bytes, int index) {
    int moved = index;
    while (moved < bytes.length && moved < index + FOLLOWING && (bytes[moved] & 0xc0) == 0x80) {
      moved++;
    }
    return moved;
  }

  /**
   * The lines between two breaks.
   *
   * @param bytes which lie at {@code at}
   * @param breaks among them, ascending, the first where the first line begins
   */
  static List<FileLine> lines(byte[] bytes, long at, List<Integer> breaks) {
    List<FileLine> lines = new ArrayList<>();
    for (int i = 0; i + 1 < breaks.size(); i++) {
      lines.add(line(bytes, at, breaks.get(i), breaks.get(i + 1)));
    }
    return lines;
  }

  static FileLine line(byte[] bytes, long at, int from, int end) {
    int last = end;
    boolean ended = last > from && bytes[last - 1] == '\n';
    last -= ended ? 1 : 0;
    last -= ended && last > from && bytes[last - 1] == '\r' ? 1 : 0;
    String text = decode(bytes, from, last - from);
    return new FileLine(at + from, at + end, shown(text), !ended);
  }

  private static String decode(byte[] bytes, int from, int length) {
    try {
      return StandardCharsets.UTF_8
          .newDecoder()
          .decode(ByteBuffer.wrap(bytes, from, length))
          .toString();
    } catch (CharacterCodingException e) {
      return new String(bytes, from, length, OTHER);
    }
  }

  private static String shown(String text) {
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (c != '\t' && (c < ' ' || c > '~')) {
        return marked(text);
      }
    }
    return text;
  }

  private static String marked(String text) {
    StringBuilder marked = new StringBuilder(text.length() + 16);
    for (int i = 0; i < text.length(); ) {
      int c = text.codePointAt(i);
      i += Character.charCount(c);
      if (c != '\t' && VisibleText.isHidden(c)) {
        marked.append(VisibleText.mark(c));
      } else {
        marked.appendCodePoint(c);
      }
    }
    return marked.toString();
  }
}
