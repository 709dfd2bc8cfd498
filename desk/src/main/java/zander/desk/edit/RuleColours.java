package zander.desk.edit;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Matcher;

/** Colours a line by the rules of its language: the first match wins, of two the first rule's. */
public final class RuleColours {
  private RuleColours() {}

  /**
   * A part of a line.
   *
   * @param kind see {@link Language.Rule}
   */
  public record Part(int start, int end, String kind) {}

  /** The coloured parts in order; none touches another. */
  public static List<Part> of(String line, List<Language.Rule> rules) {
    List<Matcher> next = new ArrayList<>();
    for (Language.Rule rule : rules) {
      Matcher matcher = rule.pattern().matcher(line);
      next.add(findFrom(matcher, 0) ? matcher : null);
    }
    List<Part> parts = new ArrayList<>();
    for (int first = first(next); first >= 0; first = first(next)) {
      Matcher found = next.get(first);
      int end = found.end();
      parts.add(new Part(found.start(), end, rules.get(first).kind()));
      for (int i = 0; i < next.size(); i++) {
        Matcher matcher = next.get(i);
        if (matcher != null && matcher.start() < end && !findFrom(matcher, end)) {
          next.set(i, null);
        }
      }
    }
    return parts;
  }

  private static boolean findFrom(Matcher matcher, int at) {
    boolean found = matcher.find(at);
    while (found && matcher.end() == matcher.start()) {
      found = matcher.find();
    }
    return found;
  }

  private static int first(List<Matcher> next) {
    int first = -1;
    for (int i = 0; i < next.size(); i++) {
      if (next.get(i) != null && (first < 0 || next.get(i).start() < next.get(first).start())) {
        first = i;
      }
    }
    return first;
  }
}
