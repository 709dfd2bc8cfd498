package zander.core.edit;

import java.util.ArrayList;
import java.util.List;
import zander.core.edit.LineChanges.Change;

/**
 * How each line of a text ends, while the text is edited: a line that stays keeps its end, one that
 * is changed keeps it too, and a new one takes that of the line beside it. Where equal lines stand
 * beside each other only the place of an edit tells which of them is gone, so it is told of each.
 * For one thread at a time.
 */
public final class LineEnds {
  private final List<LineEnd> ends;
  private final LineEnd usual;

  LineEnds(List<LineEnd> ends, LineEnd usual) {
    this.ends = new ArrayList<>(ends);
    this.usual = usual;
  }

  /**
   * A part of the text was replaced.
   *
   * @param line the one that the part begins in, counted from 0
   */
  public void replaced(int line, String removed, String inserted) {
    List<String> before = LineChanges.lines(removed);
    List<String> after = LineChanges.lines(inserted);
    List<LineEnd> part = ends.subList(line, line + before.size() - 1);
    List<LineEnd> made = carried(before, List.copyOf(part), after, beside(line, before.size() - 1));
    part.clear();
    ends.addAll(line, made);
  }

  /** What a new line takes where no line of the change itself has an end. */
  private LineEnd beside(int line, int count) {
    if (line + count < ends.size()) {
      return ends.get(line + count);
    }
    return line > 0 ? ends.get(line - 1) : usual;
  }

  /** As they are now. */
  public List<LineEnd> now() {
    return List.copyOf(ends);
  }

  /**
   * The ends for a text that came in the place of another.
   *
   * @param ends of all lines of {@code before} but the last
   * @param beside what a new line takes that has no other beside it
   */
  static List<LineEnd> carried(
      List<String> before, List<LineEnd> ends, List<String> after, LineEnd beside) {
    LineEnd[] made = new LineEnd[after.size() - 1];
    int old = 0;
    int now = 0;
    for (Change change : LineChanges.between(before, after)) {
      for (; old < change.from(); old++, now++) {
        carry(ends, old, made, now);
      }
      for (; old < change.to() && now < change.nowTo(); old++, now++) {
        carry(ends, old, made, now);
      }
      old = change.to();
      now = change.nowTo();
    }
    for (; old < before.size() && now < after.size(); old++, now++) {
      carry(ends, old, made, now);
    }
    LineEnd last = beside;
    for (LineEnd first : made) {
      if (first != null) {
        last = first;
        break;
      }
    }
    for (int i = 0; i < made.length; i++) {
      made[i] = made[i] == null ? last : made[i];
      last = made[i];
    }
    return List.of(made);
  }

  private static void carry(List<LineEnd> ends, int old, LineEnd[] made, int now) {
    if (old < ends.size() && now < made.length) {
      made[now] = ends.get(old);
    }
  }
}
