package zander.core.find;

import java.util.regex.Pattern;

/**
 * The text that is looked for.
 *
 * @param expression whether it is a regular expression (POSIX extended) rather than plain text
 */
public record SearchText(String text, boolean expression, boolean matchCase) {
  /**
   * The same for this program: what both notations share, and POSIX classes translated.
   *
   * @throws java.util.regex.PatternSyntaxException when it is not one
   */
  public Pattern pattern() {
    int flags = matchCase ? 0 : Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE;
    return expression
        ? Pattern.compile(
            text.replaceAll("\\[:([a-z])([a-z]+):\\]", "\\\\p{$1$2}")
                .replace("\\p{alpha}", "\\p{Alpha}")
                .replace("\\p{digit}", "\\p{Digit}")
                .replace("\\p{alnum}", "\\p{Alnum}")
                .replace("\\p{space}", "\\s")
                .replace("\\p{upper}", "\\p{Upper}")
                .replace("\\p{lower}", "\\p{Lower}")
                .replace("\\p{punct}", "\\p{Punct}")
                .replace("\\p{blank}", "\\p{Blank}"),
            flags)
        : Pattern.compile(text, flags | Pattern.LITERAL);
  }
}
