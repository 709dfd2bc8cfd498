package zander.core.files;

import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;

/**
 * What stands in brackets in a pattern for names (POSIX, XCU 2.13.1 and XBD 9.3.5), as a part of a
 * {@link java.util.regex.Pattern}: {@code !} or {@code ^} for all others, ranges, {@code
 * [:digit:]}, and a backslash before what stands for itself. A first {@code ]} is one of the
 * characters.
 */
public final class NamePattern {
  private final String glob;
  private final UnaryOperator<String> classes;
  private final StringBuilder set = new StringBuilder();
  private int at;

  private NamePattern(String glob, int at, UnaryOperator<String> classes) {
    this.glob = glob;
    this.at = at;
    this.classes = classes;
  }

  /**
   * @param expression matches one character
   * @param end the place behind the closing bracket
   */
  public record Brackets(String expression, int end) {}

  /**
   * Reads brackets.
   *
   * @param at the place of {@code [}
   * @param classes gives what stands for a class by its name; see {@link PosixClasses}
   * @return {@code null} when they are not closed or name a class that there is not
   */
  public static @Nullable Brackets brackets(String glob, int at, UnaryOperator<String> classes) {
    NamePattern reader = new NamePattern(glob, at + 1, classes);
    String expression = reader.read();
    return expression == null ? null : new Brackets(expression, reader.at);
  }

  private @Nullable String read() {
    boolean not = isAt('!') || isAt('^');
    at += not ? 1 : 0;
    int first = at;
    int before = -1;
    while (at < glob.length()) {
      char c = glob.charAt(at);
      if (c == ']' && at > first) {
        at++;
        return expression(not);
      }
      if (c == '[' && glob.startsWith("[:", at)) {
        int end = glob.indexOf(']', at + 2);
        if (end < 0) {
          return null;
        }
        if (glob.charAt(end - 1) == ':' && end - 1 > at + 1) {
          String known = classes.apply(glob.substring(at + 2, end - 1));
          if (known == null) {
            return null;
          }
          set.append(known);
          at = end + 1;
          before = -1;
          continue;
        }
      }
      boolean isRange =
          c == '-' && before >= 0 && at + 1 < glob.length() && glob.charAt(at + 1) != ']';
      at += isRange ? 1 : 0;
      int one = next();
      if (one < 0) {
        return null;
      }
      add(isRange ? before : one, one);
      before = isRange ? -1 : one;
    }
    return null;
  }

  /** The character here, which a backslash may stand before; -1 where there is none. */
  private int next() {
    if (isAt('\\')) {
      at++;
    }
    if (at >= glob.length()) {
      return -1;
    }
    int one = glob.codePointAt(at);
    at += Character.charCount(one);
    return one;
  }

  /** A range from a higher to a lower one has nothing in it. */
  private void add(int from, int to) {
    if (from <= to) {
      set.append(String.format("\\x{%x}-\\x{%x}", from, to));
    }
  }

  private boolean isAt(char c) {
    return at < glob.length() && glob.charAt(at) == c;
  }

  private String expression(boolean not) {
    if (set.isEmpty()) {
      return not ? "." : "(?!)";
    }
    return (not ? "[^" : "[") + set + "]";
  }
}
