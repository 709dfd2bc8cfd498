package zander.core.edit;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;

/** Places in a line that name another file, found by the expressions of its language. */
public final class TextLinks {
  /** What may close a link that is being typed. */
  private static final List<String> CLOSERS = List.of("", "\"", "'", ")", ";");

  private TextLinks() {}

  /**
   * A link.
   *
   * @param start in the line, where the target begins
   * @param end behind its last character
   */
  public record Link(int start, int end, String target) {}

  /**
   * All of a line, in their order; of those that overlap, the one that begins first.
   *
   * @param patterns whose first group is the target
   */
  public static List<Link> in(String line, List<Pattern> patterns) {
    List<Link> found = new ArrayList<>();
    for (Pattern pattern : patterns) {
      Matcher matcher = pattern.matcher(line);
      while (matcher.find()) {
        found.add(new Link(matcher.start(1), matcher.end(1), matcher.group(1)));
      }
    }
    found.sort(Comparator.comparingInt(Link::start).thenComparingInt(Link::end));
    List<Link> apart = new ArrayList<>();
    int end = -1;
    for (Link link : found) {
      if (link.start > end || (link.start == end && link.end > end)) {
        apart.add(link);
        end = link.end;
      }
    }
    return apart;
  }

  /**
   * The link that is being typed at a place of a line, as far as that; {@code null} for none. It
   * need not be closed yet.
   */
  public static @Nullable Link begunAt(String line, int column, List<Pattern> patterns) {
    String before = line.substring(0, column);
    for (String closer : CLOSERS) {
      for (Link link : in(before + closer, patterns)) {
        if (link.end == column) {
          return link;
        }
      }
    }
    return null;
  }

  /** The link around a place of a line; {@code null} for none. */
  public static @Nullable Link at(String line, int column, List<Pattern> patterns) {
    return in(line, patterns).stream()
        .filter(link -> link.start <= column && column <= link.end)
        .findFirst()
        .orElse(null);
  }
}
