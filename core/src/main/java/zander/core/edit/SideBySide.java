package zander.core.edit;

import java.util.ArrayList;
import java.util.List;

/** Two texts line beside line: what is the same stands in one row. */
public final class SideBySide {
  private SideBySide() {}

  /**
   * A row: a line of each, or of one alone.
   *
   * @param left empty where the line is on the right alone
   * @param leftNumber counted from 1; 0 where there is none
   * @param change which of the changes it is part of, counted from 0; -1 for none
   * @param from where the two begin to differ, in characters
   * @param leftTo where they are the same again, in the left line
   */
  public record Row(
      String left,
      int leftNumber,
      String right,
      int rightNumber,
      int change,
      int from,
      int leftTo,
      int rightTo) {
    public boolean isSame() {
      return change < 0;
    }
  }

  /** All rows, in the order of the texts. */
  public static List<Row> of(String left, String right) {
    List<String> old = LineChanges.lines(left);
    List<String> now = LineChanges.lines(right);
    List<Row> rows = new ArrayList<>();
    int at = 0;
    int nowAt = 0;
    int number = 0;
    for (LineChanges.Change change : LineChanges.between(old, now)) {
      same(old, at, change.from(), nowAt, rows);
      changed(old, now, change, number++, rows);
      at = change.to();
      nowAt = change.nowTo();
    }
    same(old, at, old.size(), nowAt, rows);
    return rows;
  }

  private static void same(List<String> lines, int from, int to, int nowFrom, List<Row> into) {
    for (int i = from; i < to; i++) {
      String line = lines.get(i);
      into.add(new Row(line, i + 1, line, nowFrom + i - from + 1, -1, 0, 0, 0));
    }
  }

  private static void changed(
      List<String> old, List<String> now, LineChanges.Change change, int number, List<Row> into) {
    int height = Math.max(change.to() - change.from(), change.nowTo() - change.nowFrom());
    for (int i = 0; i < height; i++) {
      boolean hasLeft = change.from() + i < change.to();
      boolean hasRight = change.nowFrom() + i < change.nowTo();
      String left = hasLeft ? old.get(change.from() + i) : "";
      String right = hasRight ? now.get(change.nowFrom() + i) : "";
      int from = hasLeft && hasRight ? commonStart(left, right) : 0;
      int end = hasLeft && hasRight ? commonEnd(left, right, from) : 0;
      into.add(
          new Row(
              left,
              hasLeft ? change.from() + i + 1 : 0,
              right,
              hasRight ? change.nowFrom() + i + 1 : 0,
              number,
              from,
              left.length() - end,
              right.length() - end));
    }
  }

  /** A character outside the basic plane is never cut. */
  private static int commonStart(String one, String other) {
    int most = Math.min(one.length(), other.length());
    int at = 0;
    while (at < most && one.charAt(at) == other.charAt(at)) {
      at++;
    }
    return at > 0 && Character.isHighSurrogate(one.charAt(at - 1)) ? at - 1 : at;
  }

  private static int commonEnd(String one, String other, int from) {
    int most = Math.min(one.length(), other.length()) - from;
    int end = 0;
    while (end < most
        && one.charAt(one.length() - 1 - end) == other.charAt(other.length() - 1 - end)) {
      end++;
    }
    boolean cut = end > 0 && Character.isLowSurrogate(one.charAt(one.length() - end));
    return cut ? end - 1 : end;
  }

  /** The right text with the lines of the left one in one change. */
  public static String withLeftIn(int change, String left, String right) {
    List<String> old = LineChanges.lines(left);
    List<String> now = new ArrayList<>(LineChanges.lines(right));
    LineChanges.Change found = LineChanges.between(old, now).get(change);
    List<String> part = now.subList(found.nowFrom(), found.nowTo());
    part.clear();
    part.addAll(old.subList(found.from(), found.to()));
    return String.join("\n", now);
  }
}
