package zander.core.listing;

import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import zander.core.files.NamePattern;
import zander.core.files.PosixClasses;

/**
 * A file name pattern (POSIX, XCU 2.13) over a name as text.
 *
 * @param expression the same for {@link Pattern}
 * @param wider a pattern for {@code find} in the C locale, where a character may be several bytes:
 *     what fits the expression fits it too
 */
record Glob(String expression, String wider) {
  /** {@code null} when it is none. */
  static @Nullable Glob read(String text) {
    StringBuilder regex = new StringBuilder();
    StringBuilder wider = new StringBuilder();
    for (int i = 0; i < text.length(); ) {
      char c = text.charAt(i);
      if (c == '*' || c == '?') {
        regex.append(c == '*' ? ".*" : ".");
        wider.append('*');
        i++;
      } else if (c == '[') {
        NamePattern.Brackets brackets = NamePattern.brackets(text, i, PosixClasses::unicode);
        if (brackets == null) {
          return null;
        }
        regex.append(brackets.expression());
        wider.append('*');
        i = brackets.end();
      } else if (c == '\\' && i + 1 == text.length()) {
        return null;
      } else {
        String escape = c == '\\' ? "\\" : "";
        i += escape.length();
        String one = Character.toString(text.codePointAt(i));
        regex.append(Pattern.quote(one));
        wider.append(escape).append(one);
        i += one.length();
      }
    }
    return new Glob(regex.toString(), wider.toString());
  }
}
