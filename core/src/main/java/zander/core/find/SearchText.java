package zander.core.find;

import java.util.regex.Pattern;

/**
 * The text that is looked for.
 *
 * @param expression whether it is a regular expression (POSIX extended) rather than plain text
 * @param wholeWord whether neither a letter, a digit nor an underscore may stand before or behind
 *     it, as with {@code grep -w}
 */
public record SearchText(String text, boolean expression, boolean matchCase, boolean wholeWord) {
  /** Also within words. */
  public SearchText(String text, boolean expression, boolean matchCase) {
    this(text, expression, matchCase, false);
  }

  /**
   * The same for this program. It is looked for in each line by itself, as {@code grep} does.
   *
   * @throws java.util.regex.PatternSyntaxException when it is not one
   */
  public Pattern pattern() {
    int flags = matchCase ? 0 : Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE;
    String translated = expression ? ExtendedExpression.translate(text) : Pattern.quote(text);
    Pattern plain = Pattern.compile(translated, flags);
    return wholeWord
        ? Pattern.compile("(?<![\\p{L}\\p{N}_])(?:" + translated + ")(?![\\p{L}\\p{N}_])", flags)
        : plain;
  }
}
