package zander.core.find;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.regex.Matcher;
import zander.core.work.Cancellation;

/**
 * Where something is in a text, and what would come in its place. Line by line, as {@code grep} and
 * {@code sed} do it: a match never goes beyond the end of its line, which is no part of it.
 */
public final class TextPlaces {
  private TextPlaces() {}

  /**
   * @param line counted from 1
   * @param start where it begins in the text
   * @param end where it ends, behind {@code start}
   * @param with what comes there
   */
  public record Place(int line, int start, int end, String with) {
    /** The same, where the text before it became longer or shorter. */
    public Place moved(int lines, int by) {
      return new Place(line + lines, start + by, end + by, with);
    }
  }

  /**
   * All places of a text, in order.
   *
   * @param with after an expression {@code $1} stands for its first group
   * @param most no more than these
   * @throws java.util.regex.PatternSyntaxException when the expression is none
   * @throws CancellationException when it was stopped, also within an expression that does not end
   */
  public static List<Place> of(
      String text, SearchText wanted, String with, int most, Cancellation stop) {
    return of(text, 0, text.length(), wanted, with, most, stop);
  }

  /** The same between two places of the text. */
  public static List<Place> of(
      String text,
      int begin,
      int end,
      SearchText wanted,
      String with,
      int most,
      Cancellation stop) {
    List<Place> places = new ArrayList<>();
    String template = wanted.expression() ? with : Matcher.quoteReplacement(with);
    Matcher matcher = wanted.pattern().matcher(new StoppableText(text, stop));
    int line = 1;
    for (int from = 0; from <= end; line++) {
      int newLine = text.indexOf('\n', from);
      int to = newLine < 0 ? text.length() : newLine;
      if (to >= begin) {
        matcher.region(Math.max(from, begin), Math.min(to, end));
        while (matcher.find()) {
          if (matcher.end() > matcher.start()) {
            if (places.size() == most) {
              return places;
            }
            String made = expand(matcher, template);
            places.add(new Place(line, matcher.start(), matcher.end(), made));
          }
        }
      }
      from = to + 1;
    }
    return places;
  }

  private static String expand(Matcher matcher, String template) {
    StringBuilder made = new StringBuilder();
    for (int i = 0; i < template.length(); i++) {
      char c = template.charAt(i);
      if (c == '\\' && i + 1 < template.length()) {
        made.append(template.charAt(++i));
      } else if (c == '$'
          && i + 1 < template.length()
          && Character.isDigit(template.charAt(i + 1))
          && template.charAt(i + 1) - '0' <= matcher.groupCount()) {
        String group = matcher.group(template.charAt(++i) - '0');
        made.append(group == null ? "" : group);
      } else {
        made.append(c);
      }
    }
    return made.toString();
  }

  /** A text whose reading ends when that is wished: an expression may look at it for ever. */
  private record StoppableText(String text, Cancellation stop) implements CharSequence {
    @Override
    public int length() {
      return text.length();
    }

    @Override
    public char charAt(int index) {
      stop.throwIfStopped();
      return text.charAt(index);
    }

    @Override
    public CharSequence subSequence(int start, int end) {
      return text.substring(start, end);
    }

    @Override
    public String toString() {
      return text;
    }
  }
}
