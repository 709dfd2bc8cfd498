package zander.core.edit;

import java.util.ArrayList;
import java.util.List;

/** The difference of two texts, line by line, with a few lines around each change. */
public final class LineDifference {
  private static final int AROUND = 2;

  private LineDifference() {}

  /** What became of a line. */
  public enum Kind {
    SAME,
    REMOVED,
    ADDED,
    /** Stands for lines that are the same and left out. */
    GAP
  }

  /**
   * @param number counted from 1: in the old text for removed lines, in the new one otherwise
   */
  public record Line(Kind kind, int number, String text) {}

  public static List<Line> of(String before, String after) {
    return of(before, after, 1);
  }

  /**
   * The same for parts of two texts.
   *
   * @param first the number of their first lines
   */
  public static List<Line> of(String before, String after, int first) {
    return lines(before, after).stream()
        .map(line -> new Line(line.kind(), line.number() + first - 1, line.text()))
        .toList();
  }

  private static List<Line> lines(String before, String after) {
    List<String> old = before.lines().toList();
    List<String> now = after.lines().toList();
    List<Line> lines = new ArrayList<>();
    int shown = 0;
    for (LineChanges.Change change : LineChanges.between(old, now)) {
      int at = change.nowFrom();
      int end = Math.min(at, shown + (shown == 0 ? 0 : AROUND));
      same(now, shown, end, lines);
      int begin = Math.max(end, at - AROUND);
      if (begin > end) {
        lines.add(new Line(Kind.GAP, 0, ""));
      }
      same(now, begin, at, lines);
      for (int i = change.from(); i < change.to(); i++) {
        lines.add(new Line(Kind.REMOVED, i + 1, old.get(i)));
      }
      for (int i = at; i < change.nowTo(); i++) {
        lines.add(new Line(Kind.ADDED, i + 1, now.get(i)));
      }
      shown = change.nowTo();
    }
    if (!lines.isEmpty()) {
      same(now, shown, Math.min(now.size(), shown + AROUND), lines);
    }
    return lines;
  }

  private static void same(List<String> now, int from, int to, List<Line> into) {
    for (int i = from; i < to; i++) {
      into.add(new Line(Kind.SAME, i + 1, now.get(i)));
    }
  }
}
