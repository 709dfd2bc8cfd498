package zander.core.files;

import java.util.Map;
import org.jspecify.annotations.Nullable;

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

  /** The spaces at which a line may be broken, as in the locales of the GNU library. */
  private static final String MORE_SPACES =
      "\\u1680\\u2000-\\u2006\\u2008-\\u200A\\u2028\\u2029\\u205F\\u3000";

  private static final Map<String, String> LETTERS =
      Map.of(
          "punct",
          "\\p{P}\\p{S}",
          "graph",
          "\\x21-\\x7E\\p{L}\\p{M}\\p{N}\\p{P}\\p{S}",
          "print",
          "\\x20-\\x7E\\p{L}\\p{M}\\p{N}\\p{P}\\p{S}\\p{Zs}",
          "space",
          " \\t\\n\\x0B\\f\\r" + MORE_SPACES,
          "blank",
          " \\t" + MORE_SPACES.replace("\\u2028\\u2029", ""),
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
  public static @Nullable String ascii(String name) {
    return ASCII.get(name);
  }

  /** With the letters of all languages; {@code null} where there is none of that name. */
  public static @Nullable String unicode(String name) {
    return LETTERS.getOrDefault(name, ASCII.get(name));
  }
}
