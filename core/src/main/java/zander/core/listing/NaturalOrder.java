package zander.core.listing;

import java.util.Comparator;

/**
 * Names in the order people expect: runs of digits by their value, so 2 stands before 10, letters
 * without regard to case. Names that are equal so are told apart by their letters and zeros.
 */
public final class NaturalOrder implements Comparator<String> {
  public static final Comparator<String> NAMES =
      new NaturalOrder().thenComparing(Comparator.naturalOrder());

  private NaturalOrder() {}

  @Override
  public int compare(String one, String other) {
    int i = 0;
    int j = 0;
    while (i < one.length() && j < other.length()) {
      char a = one.charAt(i);
      char b = other.charAt(j);
      if (isDigit(a) && isDigit(b)) {
        int endOne = endOfDigits(one, i);
        int endOther = endOfDigits(other, j);
        int compared = compareNumbers(one, i, endOne, other, j, endOther);
        if (compared != 0) {
          return compared;
        }
        i = endOne;
        j = endOther;
      } else {
        int compared = Character.compare(fold(a), fold(b));
        if (compared != 0) {
          return compared;
        }
        i++;
        j++;
      }
    }
    return Integer.compare(one.length() - i, other.length() - j);
  }

  private static char fold(char c) {
    return Character.toLowerCase(Character.toUpperCase(c));
  }

  private static boolean isDigit(char c) {
    return c >= '0' && c <= '9';
  }

  private static int endOfDigits(String text, int from) {
    int end = from;
    while (end < text.length() && isDigit(text.charAt(end))) {
      end++;
    }
    return end;
  }

  /** By value, however long they are: without leading zeros the longer one is larger. */
  private static int compareNumbers(String one, int i, int endOne, String other, int j, int endJ) {
    int a = skipZeros(one, i, endOne);
    int b = skipZeros(other, j, endJ);
    if (endOne - a != endJ - b) {
      return Integer.compare(endOne - a, endJ - b);
    }
    for (; a < endOne; a++, b++) {
      if (one.charAt(a) != other.charAt(b)) {
        return Character.compare(one.charAt(a), other.charAt(b));
      }
    }
    return 0;
  }

  private static int skipZeros(String text, int from, int end) {
    int at = from;
    while (at < end && text.charAt(at) == '0') {
      at++;
    }
    return at;
  }
}
