package zander.core.find;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zander.core.work.Cancellation;

/**
 * Where something is in a text, and what would come in its place. Line by line, as {@code grep} and
 * {@code sed} do it: a match never goes beyond the end of its line, which is no part of it.
 */
public final class TextPlaces {
  /** Characters that are looked at at once, some milliseconds' worth. */
  private static final int MOST_READS = 1_000_000;

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
    add(new StoppableText(text, stop), begin, end, wanted, with, most, places);
    return places;
  }

  /**
   * Those of a short text that are found at once, for a thread that must not wait.
   *
   * @throws java.util.regex.PatternSyntaxException when the expression is none
   */
  public static List<Place> atOnce(String text, SearchText wanted, int most) {
    List<Place> places = new ArrayList<>();
    int[] reads = {0};
    Runnable bound =
        () -> {
          if (reads[0]++ > MOST_READS) {
            throw new CancellationException("it takes too long");
          }
        };
    try {
      add(new StoppableText(text, bound), 0, text.length(), wanted, "", most, places);
    } catch (CancellationException | StackOverflowError e) {
      // What was found by then is what there is.
    }
    return places;
  }

  /**
   * Whether there is one in a line.
   *
   * @throws CancellationException when it was stopped, also within an expression that does not end
   */
  public static boolean isIn(String line, Pattern pattern, Cancellation stop) {
    return pattern.matcher(new StoppableText(line, stop)).find();
  }

  private static void add(
      StoppableText stoppable,
      int begin,
      int end,
      SearchText wanted,
      String with,
      int most,
      List<Place> places) {
    String text = stoppable.text();
    String template = wanted.expression() ? with : Matcher.quoteReplacement(with);
    Matcher matcher = wanted.pattern().matcher(stoppable);
    int line = 1;
    for (int from = 0; from <= end; line++) {
      int newLine = text.indexOf('\n', from);
      int to = newLine < 0 ? text.length() : newLine;
      if (to >= begin) {
        matcher.region(Math.max(from, begin), Math.min(to, end));
        while (matcher.find()) {
          if (matcher.end() > matcher.start()) {
            if (places.size() == most) {
              return;
            }
            String made = expand(matcher, template);
            places.add(new Place(line, matcher.start(), matcher.end(), made));
          }
        }
      }
      from = to + 1;
    }
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
}
