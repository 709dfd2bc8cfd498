package zander.core.edit;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.edit.LineChanges.Change;

/**
 * Where lines were added or removed among others alike, several places are right: of three equal
 * lines, any may be the one that is gone. A change goes to where it meets another, or else to the
 * last of its places, so that the same edit always looks the same.
 */
final class ChangeSlide {
  private final int[] before;
  private final int[] after;

  ChangeSlide(int[] before, int[] after) {
    this.before = before;
    this.after = after;
  }

  List<Change> slid(List<Change> changes) {
    List<Change> made = new ArrayList<>();
    // From the end: what a change comes to lie beside has its own place already.
    List<Change> rest = new ArrayList<>();
    for (int i = changes.size() - 1; i >= 0; i--) {
      Change last = rest.isEmpty() ? null : rest.get(rest.size() - 1);
      Change lower = down(changes.get(i), last);
      while (last != null && lower.to() == last.from() && lower.nowTo() == last.nowFrom()) {
        rest.remove(rest.size() - 1);
        lower = new Change(lower.from(), last.to(), lower.nowFrom(), last.nowTo());
        last = rest.isEmpty() ? null : rest.get(rest.size() - 1);
        lower = down(lower, last);
      }
      rest.add(lower);
    }
    for (int i = rest.size() - 1; i >= 0; i--) {
      Change one = rest.get(i);
      Change above = made.isEmpty() ? null : made.get(made.size() - 1);
      Change met = above == null ? null : meeting(one, above);
      if (met != null) {
        made.set(made.size() - 1, met);
      } else {
        made.add(one);
      }
    }
    return made;
  }

  private Change down(Change change, @Nullable Change next) {
    if (!change.isOneSided()) {
      return change;
    }
    int oldEnd = next == null ? before.length : next.from();
    int nowEnd = next == null ? after.length : next.nowFrom();
    int[] lines = change.from() < change.to() ? before : after;
    boolean old = lines == before;
    int from = old ? change.from() : change.nowFrom();
    int to = old ? change.to() : change.nowTo();
    int by = 0;
    while (change.to() + by < oldEnd
        && change.nowTo() + by < nowEnd
        && lines[from + by] == lines[to + by]) {
      by++;
    }
    return moved(change, by);
  }

  /** Both as one, if the change can go up to where the other ends; {@code null} otherwise. */
  private @Nullable Change meeting(Change change, Change above) {
    if (!change.isOneSided()) {
      return null;
    }
    boolean old = change.from() < change.to();
    boolean otherSide = old ? above.nowFrom() < above.nowTo() : above.from() < above.to();
    int gap = change.from() - above.to();
    if (!otherSide || gap != change.nowFrom() - above.nowTo()) {
      return null;
    }
    int[] lines = old ? before : after;
    int from = old ? change.from() : change.nowFrom();
    int to = old ? change.to() : change.nowTo();
    for (int by = 1; by <= gap; by++) {
      if (lines[from - by] != lines[to - by]) {
        return null;
      }
    }
    Change up = moved(change, -gap);
    return new Change(above.from(), up.to(), above.nowFrom(), up.nowTo());
  }

  private static Change moved(Change change, int by) {
    return new Change(
        change.from() + by, change.to() + by, change.nowFrom() + by, change.nowTo() + by);
  }
}
