package zander.core.files;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.StandardCharsets;
import org.jspecify.annotations.Nullable;
import zander.core.work.VisibleText;

/**
 * The name of one file as the server's bytes, kept in a string with one char (0 to 255) a byte.
 *
 * <p>POSIX names are bytes without {@code /} and NUL, in no particular encoding. Kept this way they
 * survive every operation unchanged; text for people is made only for showing.
 */
public final class WireName {
  private WireName() {}

  /** The wire form of a name typed by a person, in UTF-8. */
  public static String fromText(String text) {
    return new String(text.getBytes(StandardCharsets.UTF_8), StandardCharsets.ISO_8859_1);
  }

  /** The bytes of a wire name. */
  public static byte[] bytes(String wire) {
    return wire.getBytes(StandardCharsets.ISO_8859_1);
  }

  /** The wire form of bytes from a server. */
  public static String fromBytes(byte[] bytes) {
    return new String(bytes, StandardCharsets.ISO_8859_1);
  }

  public static boolean isUtf8(String wire) {
    return decode(wire) != null;
  }

  /**
   * The name as people read it: UTF-8 where it is, and what cannot be seen in one line (control
   * characters, bytes that are not UTF-8, see {@link VisibleText}) as {@code \n}, {@code \t} or
   * {@code \xNN}.
   */
  public static String toText(String wire) {
    if (isPlain(wire)) {
      return wire;
    }
    String text = decode(wire);
    boolean utf8 = text != null;
    String from = text != null ? text : wire;
    StringBuilder shown = new StringBuilder(from.length());
    from.codePoints()
        .forEach(
            c -> {
              if (c == '\n') {
                shown.append("\\n");
              } else if (c == '\t') {
                shown.append("\\t");
              } else if (utf8 ? VisibleText.isHidden(c) : c < 0x20 || c > 0x7e) {
                shown.append(VisibleText.mark(c));
              } else {
                shown.appendCodePoint(c);
              }
            });
    return shown.toString();
  }

  /** Most names are: nothing in them has another form. */
  private static boolean isPlain(String wire) {
    for (int i = 0; i < wire.length(); i++) {
      if (wire.charAt(i) < 0x20 || wire.charAt(i) > 0x7e) {
        return false;
      }
    }
    return true;
  }

  /**
   * Whether a server may name an entry of a folder so. Names that would lead elsewhere are refused.
   */
  public static boolean isSafe(String wire) {
    return !wire.isEmpty()
        && !wire.equals(".")
        && !wire.equals("..")
        && wire.indexOf('/') < 0
        && wire.indexOf('\0') < 0;
  }

  private static @Nullable String decode(String wire) {
    try {
      return StandardCharsets.UTF_8.newDecoder().decode(ByteBuffer.wrap(bytes(wire))).toString();
    } catch (CharacterCodingException e) {
      return null;
    }
  }
}
