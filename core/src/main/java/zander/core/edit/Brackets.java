package zander.core.edit;

import org.jspecify.annotations.Nullable;

/** Brackets of a text and their partners, by nesting of their own kind. */
public final class Brackets {
  private static final String OPENING = "([{";
  private static final String CLOSING = ")]}";

  private Brackets() {}

  /**
   * Two brackets that belong to each other.
   *
   * @param at the one that was asked about
   * @param partner -1 where there is none
   */
  public record Pair(int at, int partner) {}

  public static boolean isOpening(char c) {
    return OPENING.indexOf(c) >= 0;
  }

  public static boolean isClosing(char c) {
    return CLOSING.indexOf(c) >= 0;
  }

  /** What closes an opening bracket. */
  public static char closing(char opening) {
    return CLOSING.charAt(OPENING.indexOf(opening));
  }

  /**
   * The bracket at a cursor, the one before it first, with its partner.
   *
   * @param cursor between two characters
   * @return {@code null} where no bracket is beside the cursor
   */
  public static @Nullable Pair at(CharSequence text, int cursor) {
    if (cursor > 0 && isBracket(text.charAt(cursor - 1))) {
      return new Pair(cursor - 1, partner(text, cursor - 1));
    }
    if (cursor < text.length() && isBracket(text.charAt(cursor))) {
      return new Pair(cursor, partner(text, cursor));
    }
    return null;
  }

  private static boolean isBracket(char c) {
    return isOpening(c) || isClosing(c);
  }

  private static int partner(CharSequence text, int at) {
    char own = text.charAt(at);
    boolean forwards = isOpening(own);
    char other = forwards ? closing(own) : OPENING.charAt(CLOSING.indexOf(own));
    int step = forwards ? 1 : -1;
    int depth = 0;
    for (int i = at; i >= 0 && i < text.length(); i += step) {
      char c = text.charAt(i);
      depth += c == own ? 1 : c == other ? -1 : 0;
      if (depth == 0) {
        return i;
      }
    }
    return -1;
  }
}
