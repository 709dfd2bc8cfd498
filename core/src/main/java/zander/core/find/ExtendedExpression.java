package zander.core.find;

import java.util.regex.Pattern;
import java.util.regex.PatternSyntaxException;
import zander.core.files.PosixClasses;

/**
 * POSIX extended regular expressions (XBD 9.4) in the notation of {@link Pattern}: what is in
 * brackets means something else there. Where alternatives begin alike, the first that fits is
 * taken, not the longest.
 */
final class ExtendedExpression {
  private final String text;
  private final StringBuilder made = new StringBuilder();
  private int at;

  private ExtendedExpression(String text) {
    this.text = text;
  }

  /**
   * @throws PatternSyntaxException when it is not one
   */
  static String translate(String text) {
    return new ExtendedExpression(text).translated();
  }

  private String translated() {
    while (at < text.length()) {
      char c = text.charAt(at);
      if (c == '\\' && at + 1 < text.length()) {
        escaped(text.charAt(at + 1));
        at += 2;
      } else if (c == '[') {
        brackets();
      } else {
        made.append(c);
        at++;
      }
    }
    return made.toString();
  }

  /** GNU's ends of words besides; what stands for itself stands for itself there. */
  private void escaped(char c) {
    if (c == '<' || c == '>') {
      made.append("\\b");
    } else {
      made.append('\\').append(c);
    }
  }

  /** A bracket expression (XBD 9.3.5): nothing is escaped in it, and a first {@code ]} is in it. */
  private void brackets() {
    int from = at++;
    made.append('[');
    if (at < text.length() && text.charAt(at) == '^') {
      made.append('^');
      at++;
    }
    for (boolean first = true; ; first = false) {
      if (at >= text.length()) {
        throw new PatternSyntaxException("a bracket is not closed", text, from);
      }
      char c = text.charAt(at);
      if (c == ']' && !first) {
        at++;
        break;
      }
      if (c == '[' && at + 1 < text.length() && ":.=".indexOf(text.charAt(at + 1)) >= 0) {
        named(text.charAt(at + 1));
        continue;
      }
      boolean range = c == '-' && !first && at + 1 < text.length() && text.charAt(at + 1) != ']';
      made.append(range ? "-" : literal(c));
      at++;
    }
    made.append(']');
  }

  /** {@code [:space:]}, {@code [.a.]}, {@code [=a=]}. */
  private void named(char kind) {
    int end = text.indexOf(kind + "]", at + 2);
    if (end < 0) {
      throw new PatternSyntaxException("a class is not closed", text, at);
    }
    String name = text.substring(at + 2, end);
    if (kind != ':') {
      name.chars().forEach(c -> made.append(literal((char) c)));
    } else if (PosixClasses.unicode(name) != null) {
      made.append(PosixClasses.unicode(name));
    } else {
      throw new PatternSyntaxException("there is no class " + name, text, at);
    }
    at = end + 2;
  }

  private static String literal(char c) {
    return "[]\\^-&~".indexOf(c) >= 0 ? "\\" + c : String.valueOf(c);
  }
}
