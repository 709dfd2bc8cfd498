package zander.core.edit;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/** What is done to whole lines while a text is edited. Lines are given without their ends. */
public final class LineOperations {
  private static final int MOST_SPACES = 8;
  private static final int USUAL_SPACES = 2;

  private LineOperations() {}

  /** The white space that a line begins with. */
  public static String indentOf(String line) {
    int end = 0;
    while (end < line.length() && (line.charAt(end) == ' ' || line.charAt(end) == '\t')) {
      end++;
    }
    return line.substring(0, end);
  }

  /**
   * One step of indentation as the text has it: a tab where lines begin with tabs, and otherwise as
   * many spaces as its lines differ by most often; a tab in a text without any.
   *
   * @param lines of the text, or the first of a long one
   */
  public static String indentUnit(List<String> lines) {
    int tabs = 0;
    int spaces = 0;
    int[] steps = new int[MOST_SPACES + 1];
    int last = 0;
    for (String line : lines) {
      String indent = indentOf(line);
      if (indent.length() == line.length()) {
        continue;
      }
      tabs += indent.startsWith("\t") ? 1 : 0;
      spaces += indent.startsWith(" ") ? 1 : 0;
      int step = indent.length() - last;
      if (step > 1 && step <= MOST_SPACES && !indent.startsWith("\t")) {
        steps[step]++;
      }
      last = indent.length();
    }
    if (tabs >= spaces) {
      return "\t";
    }
    int best = USUAL_SPACES;
    for (int i = 1; i <= MOST_SPACES; i++) {
      best = steps[i] > steps[best] ? i : best;
    }
    return " ".repeat(best);
  }

  /** Each line one step further in; empty ones stay. */
  public static List<String> indented(List<String> lines, String unit) {
    return lines.stream().map(line -> line.isEmpty() ? line : unit + line).toList();
  }

  /** Each line one step further out, as far as there is white space before it. */
  public static List<String> outdented(List<String> lines, String unit) {
    return lines.stream().map(line -> outdented(line, unit)).toList();
  }

  private static String outdented(String line, String unit) {
    if (line.startsWith(unit) || line.startsWith("\t")) {
      return line.substring(line.startsWith(unit) ? unit.length() : 1);
    }
    int spaces = 0;
    while (spaces < Math.min(unit.length(), line.length()) && line.charAt(spaces) == ' ') {
      spaces++;
    }
    return line.substring(spaces);
  }

  /**
   * Makes comments of all lines, or lines of all comments when each of them is one; blank lines
   * stay. All marks come at the indentation of the line that has the least.
   *
   * @param begin what begins a comment
   * @param end what ends it; empty where the line's end does
   */
  public static List<String> commented(List<String> lines, String begin, String end) {
    List<String> used = lines.stream().filter(line -> !line.isBlank()).toList();
    boolean all = used.stream().allMatch(line -> isComment(line.strip(), begin, end));
    if (all && !used.isEmpty()) {
      return lines.stream()
          .map(line -> line.isBlank() ? line : uncommented(line, begin, end))
          .toList();
    }
    int least = used.stream().mapToInt(line -> indentOf(line).length()).min().orElse(0);
    return lines.stream()
        .map(
            line ->
                line.isBlank()
                    ? line
                    : line.substring(0, least)
                        + begin
                        + " "
                        + line.substring(least)
                        + (end.isEmpty() ? "" : " " + end))
        .toList();
  }

  private static boolean isComment(String line, String begin, String end) {
    return line.startsWith(begin)
        && line.endsWith(end)
        && line.length() >= begin.length() + end.length();
  }

  private static String uncommented(String line, String begin, String end) {
    String indent = indentOf(line);
    String rest = line.strip();
    rest = rest.substring(begin.length(), rest.length() - end.length());
    rest = rest.startsWith(" ") ? rest.substring(1) : rest;
    return indent
        + (!end.isEmpty() && rest.endsWith(" ") ? rest.substring(0, rest.length() - 1) : rest);
  }

  /** All in one line, with one space where the white space between two was. */
  public static String joined(List<String> lines) {
    StringBuilder made = new StringBuilder(lines.get(0));
    for (String line : lines.subList(1, lines.size())) {
      String next = line.stripLeading();
      boolean spaced = made.length() > 0 && !Character.isWhitespace(made.charAt(made.length() - 1));
      made.append(spaced && !next.isEmpty() ? " " : "").append(next);
    }
    return made.toString();
  }

  /**
   * By the numbers of their characters; from the last to the first when they are sorted already.
   */
  public static List<String> sorted(List<String> lines) {
    List<String> made = new ArrayList<>(lines);
    Collections.sort(made);
    if (made.equals(lines)) {
      Collections.reverse(made);
    }
    return made;
  }
}
