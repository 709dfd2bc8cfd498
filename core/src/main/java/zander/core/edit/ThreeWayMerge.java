package zander.core.edit;

import java.util.ArrayList;
import java.util.List;
import zander.core.edit.LineChanges.Change;

/**
 * Two texts that were both made from a third, put together: what only one changed is taken from it,
 * what both changed alike is taken once, and what they changed differently in the same place, or in
 * places beside each other, is for a person to choose.
 */
public final class ThreeWayMerge {
  private final List<Part> parts = new ArrayList<>();

  private final List<String> base;
  private final List<String> mine;
  private final List<String> theirs;

  private ThreeWayMerge(List<String> base, List<String> mine, List<String> theirs) {
    this.base = base;
    this.mine = mine;
    this.theirs = theirs;
  }

  /**
   * Some lines of the outcome.
   *
   * @param isConflict whether {@code mine} and {@code theirs} are to be chosen from; both are the
   *     same otherwise
   * @param line where it begins in my text, counted from 1
   */
  public record Part(
      boolean isConflict, List<String> base, List<String> mine, List<String> theirs, int line) {}

  /** Texts with {@code \n} between lines; an end of the last line is a line that is empty. */
  public static ThreeWayMerge of(String base, String mine, String theirs) {
    ThreeWayMerge merge =
        new ThreeWayMerge(
            LineChanges.lines(base), LineChanges.lines(mine), LineChanges.lines(theirs));
    merge.run();
    return merge;
  }

  /** All of the outcome, in order. */
  public List<Part> parts() {
    return List.copyOf(parts);
  }

  public List<Part> conflicts() {
    return parts.stream().filter(Part::isConflict).toList();
  }

  /**
   * The outcome as a text.
   *
   * @param chosen the lines for each conflict, in order
   */
  public String text(List<List<String>> chosen) {
    List<String> all = new ArrayList<>();
    int next = 0;
    for (Part part : parts) {
      all.addAll(part.isConflict() ? chosen.get(next++) : part.mine());
    }
    return String.join("\n", all);
  }

  private void run() {
    List<Change> ours = LineChanges.between(base, mine);
    List<Change> others = LineChanges.between(base, theirs);
    int done = 0;
    int mineAt = 0;
    int theirsAt = 0;
    int i = 0;
    int j = 0;
    while (i < ours.size() || j < others.size()) {
      int start =
          Math.min(
              i < ours.size() ? ours.get(i).from() : Integer.MAX_VALUE,
              j < others.size() ? others.get(j).from() : Integer.MAX_VALUE);
      same(done, start, mineAt);
      mineAt += start - done;
      theirsAt += start - done;
      // All that touch each other, on either side, are one.
      int end = start;
      int firstOurs = i;
      int firstOthers = j;
      boolean grows = true;
      while (grows) {
        grows = false;
        while (i < ours.size() && ours.get(i).from() <= end) {
          end = Math.max(end, ours.get(i++).to());
          grows = true;
        }
        while (j < others.size() && others.get(j).from() <= end) {
          end = Math.max(end, others.get(j++).to());
          grows = true;
        }
      }
      int mineTo = mineAt + (end - start) + growth(ours.subList(firstOurs, i));
      int theirsTo = theirsAt + (end - start) + growth(others.subList(firstOthers, j));
      add(
          base.subList(start, end),
          mine.subList(mineAt, mineTo),
          theirs.subList(theirsAt, theirsTo),
          mineAt,
          i > firstOurs,
          j > firstOthers);
      done = end;
      mineAt = mineTo;
      theirsAt = theirsTo;
    }
    same(done, base.size(), mineAt);
  }

  private static int growth(List<Change> changes) {
    int by = 0;
    for (Change change : changes) {
      by += (change.nowTo() - change.nowFrom()) - (change.to() - change.from());
    }
    return by;
  }

  private void same(int from, int to, int mineAt) {
    if (from < to) {
      List<String> lines = base.subList(from, to);
      parts.add(new Part(false, lines, lines, lines, mineAt + 1));
    }
  }

  private void add(
      List<String> was,
      List<String> ours,
      List<String> others,
      int at,
      boolean iChanged,
      boolean theyChanged) {
    if (!theyChanged || ours.equals(others)) {
      parts.add(new Part(false, was, ours, ours, at + 1));
    } else if (!iChanged) {
      parts.add(new Part(false, was, others, others, at + 1));
    } else {
      parts.add(new Part(true, was, ours, others, at + 1));
    }
  }
}
