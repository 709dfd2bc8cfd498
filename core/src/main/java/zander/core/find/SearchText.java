package zander.core.find;

import java.util.regex.Pattern;

/**
 * The text that is looked for.
 *
 * @param expression whether it is a regular expression (POSIX extended) rather than plain text
 */
public record SearchText(String text, boolean expression, boolean matchCase) {
  /**
   * The same for this program. It is looked for in each line by itself, as {@code grep} does.
   *
   * @throws java.util.regex.PatternSyntaxException when it is not one
   */
  public Pattern pattern() {
    int flags = matchCase ? 0 : Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE;
    return expression
        ? ExtendedExpression.compile(text, flags)
        : Pattern.compile(text, flags | Pattern.LITERAL);
  }
}
