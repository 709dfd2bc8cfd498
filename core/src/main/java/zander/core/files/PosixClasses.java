package zander.core.files;

import java.util.Map;

/**
 * The character classes of POSIX (XBD 7.3.1) as they stand in the brackets of a {@link
 * java.util.regex.Pattern}.
 */
public final class PosixClasses {
  private static final Map<String, String> ASCII =
      Map.ofEntries(
          Map.entry("alpha", "a-zA-Z"),
          Map.entry("digit", "0-9"),
          Map.entry("alnum", "a-zA-Z0-9"),
          Map.entry("upper", "A-Z"),
          Map.entry("lower", "a-z"),
          Map.entry("space", " \\t\\n\\x0B\\f\\r"),
          Map.entry("blank", " \\t"),
          Map.entry("punct", "\\p{Punct}"),
          Map.entry("cntrl", "\\x00-\\x1F\\x7F"),
          Map.entry("graph", "\\x21-\\x7E"),
          Map.entry("print", "\\x20-\\x7E"),
          Map.entry("xdigit", "0-9A-Fa-f"));

  private static final Map<String, String> LETTERS =
      Map.of(
          "alpha",
          "\\p{IsAlphabetic}",
          "alnum",
          "\\p{IsAlphabetic}\\p{IsDigit}",
          "upper",
          "\\p{IsUppercase}",
          "lower",
          "\\p{IsLowercase}");

  private PosixClasses() {}

  /** As in the C locale; {@code null} where there is none of that name. */
  public static String ascii(String name) {
    return ASCII.get(name);
  }

  /** With the letters of all languages; {@code null} where there is none of that name. */
  public static String unicode(String name) {
    return LETTERS.getOrDefault(name, ASCII.get(name));
  }
}
