package zander.core.edit;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Which lines of two texts differ: few changes, by the divide and conquer of E. W. Myers, "An O(ND)
 * Difference Algorithm and Its Variations" (Algorithmica 1, 1986), section 4b. Memory grows with
 * the lines, not with the differences; where two texts differ much, the search for the fewest
 * changes is cut short, so that the work grows little faster than the lines.
 */
public final class LineChanges {
  /** So many differences are followed from a place before the best so far is taken. */
  private static final int MOST_STEPS = 256;

  private final int[] before;
  private final int[] after;
  private final boolean[] removed;
  private final boolean[] added;

  /** Where each line that takes part in the search stands. */
  private int[] old = {};

  private int[] now = {};

  private LineChanges(int[] before, int[] after) {
    this.before = before;
    this.after = after;
    this.removed = new boolean[before.length];
    this.added = new boolean[after.length];
  }

  /**
   * Lines that others stand in the place of: {@code from} (included) to {@code to} (not included)
   * in the first text, and those that stand there in the second. Counted from 0; one of the two may
   * be empty.
   */
  public record Change(int from, int to, int nowFrom, int nowTo) {
    /** Whether lines are only added, or only removed. */
    boolean isOneSided() {
      return from == to || nowFrom == nowTo;
    }
  }

  /**
   * @return in the order of the text; none begins where the one before ends. Lines that are only
   *     added or removed among others alike are said to be the last of them.
   */
  public static List<Change> between(List<String> before, List<String> after) {
    Map<String, Integer> numbers = new HashMap<>();
    int[] first = numbered(before, numbers);
    int[] second = numbered(after, numbers);
    LineChanges search = new LineChanges(first, second);
    search.run(numbers.size());
    return new ChangeSlide(first, second).slid(search.changes());
  }

  /** A text with {@code \n} between lines; an end of the last line is a line that is empty. */
  public static List<String> lines(String text) {
    return List.of(text.split("\n", -1));
  }

  private static int[] numbered(List<String> lines, Map<String, Integer> numbers) {
    int[] made = new int[lines.size()];
    int i = 0;
    for (String line : lines) {
      Integer known = numbers.putIfAbsent(line, numbers.size());
      made[i++] = known == null ? numbers.size() - 1 : known;
    }
    return made;
  }

  private void run(int kinds) {
    int start = 0;
    int most = Math.min(before.length, after.length);
    while (start < most && before[start] == after[start]) {
      start++;
    }
    int end = 0;
    while (end < most - start && before[before.length - 1 - end] == after[after.length - 1 - end]) {
      end++;
    }
    // What the other text does not have at all is a difference whatever is found.
    old = shared(before, start, before.length - end, after, kinds, removed);
    now = shared(after, start, after.length - end, before, kinds, added);
    search(0, old.length, 0, now.length);
  }

  private static int[] shared(
      int[] lines, int from, int to, int[] others, int kinds, boolean[] differs) {
    boolean[] known = new boolean[kinds];
    for (int other : others) {
      known[other] = true;
    }
    int[] places = new int[to - from];
    int count = 0;
    for (int i = from; i < to; i++) {
      if (known[lines[i]]) {
        places[count++] = i;
      } else {
        differs[i] = true;
      }
    }
    return java.util.Arrays.copyOf(places, count);
  }

  private boolean same(int x, int y) {
    return before[old[x]] == after[now[y]];
  }

  private void search(int fromX, int toX, int fromY, int toY) {
    int x = fromX;
    int y = fromY;
    int endX = toX;
    int endY = toY;
    while (x < endX && y < endY && same(x, y)) {
      x++;
      y++;
    }
    while (x < endX && y < endY && same(endX - 1, endY - 1)) {
      endX--;
      endY--;
    }
    if (x == endX || y == endY) {
      for (; x < endX; x++) {
        removed[old[x]] = true;
      }
      for (; y < endY; y++) {
        added[now[y]] = true;
      }
      return;
    }
    long middle = middle(x, endX, y, endY);
    int middleX = (int) (middle >> 32);
    int middleY = (int) middle;
    search(x, middleX, y, middleY);
    search(middleX, endX, middleY, endY);
  }

  /**
   * A place that a way with few differences goes through, x in the upper half; never a corner, so
   * that both parts are smaller.
   */
  private long middle(int x0, int x1, int y0, int y1) {
    int width = x1 - x0;
    int height = y1 - y0;
    int most = Math.min(MOST_STEPS, (width + height + 1) / 2);
    int size = 2 * most + 3;
    int middle = most + 1;
    // How far down each diagonal the ways of so many differences come, from both ends.
    int[] down = new int[size];
    int[] up = new int[size];
    int delta = width - height;
    boolean odd = (delta & 1) != 0;
    down[middle + 1] = 0;
    up[middle + 1] = 0;
    long best = place(x0, y0);
    int furthest = -1;
    for (int steps = 0; steps <= most; steps++) {
      for (int k = -steps; k <= steps; k += 2) {
        int x = step(down, middle + k, k, steps);
        int y = x - k;
        if (x > width || y > height || y < 0) {
          down[middle + k] = Math.min(x, width);
          continue;
        }
        int startX = x;
        while (x < width && y < height && same(x0 + x, y0 + y)) {
          x++;
          y++;
        }
        down[middle + k] = x;
        int other = delta - k;
        if (odd && Math.abs(other) <= steps - 1 && x + up[middle + other] >= width) {
          return inside(x0 + startX, y0 + startX - k, x0, x1, y0, y1, x0 + x, y0 + y);
        }
        if (x + y > furthest) {
          furthest = x + y;
          best = place(x0 + x, y0 + y);
        }
      }
      for (int k = -steps; k <= steps; k += 2) {
        int x = step(up, middle + k, k, steps);
        int y = x - k;
        if (x > width || y > height || y < 0) {
          up[middle + k] = Math.min(x, width);
          continue;
        }
        int startX = x;
        while (x < width && y < height && same(x1 - 1 - x, y1 - 1 - y)) {
          x++;
          y++;
        }
        up[middle + k] = x;
        int other = delta - k;
        if (!odd && Math.abs(other) <= steps && x + down[middle + other] >= width) {
          return inside(x1 - startX, y1 - (startX - k), x0, x1, y0, y1, x1 - x, y1 - y);
        }
      }
    }
    int x = (int) (best >> 32);
    int y = (int) best;
    return inside(x, y, x0, x1, y0, y1, x0 + width / 2, y0 + height / 2);
  }

  /** One more difference: a line more of one text or of the other, whichever leads further. */
  private static int step(int[] reached, int at, int k, int steps) {
    boolean fromAbove = k == -steps || (k != steps && reached[at - 1] < reached[at + 1]);
    return fromAbove ? reached[at + 1] : reached[at - 1] + 1;
  }

  private static long place(int x, int y) {
    return (long) x << 32 | y;
  }

  /** The first place, or the second where the first is a corner, or the middle. */
  private static long inside(int x, int y, int x0, int x1, int y0, int y1, int otherX, int otherY) {
    if (!isCorner(x, y, x0, x1, y0, y1)) {
      return place(x, y);
    }
    if (!isCorner(otherX, otherY, x0, x1, y0, y1)) {
      return place(otherX, otherY);
    }
    return x1 - x0 > 1 ? place(x0 + (x1 - x0) / 2, y0) : place(x0, y0 + (y1 - y0) / 2);
  }

  private static boolean isCorner(int x, int y, int x0, int x1, int y0, int y1) {
    return (x == x0 && y == y0) || (x == x1 && y == y1);
  }

  private List<Change> changes() {
    List<Change> changes = new ArrayList<>();
    int x = 0;
    int y = 0;
    while (x < before.length || y < after.length) {
      int fromX = x;
      int fromY = y;
      while (x < before.length && removed[x]) {
        x++;
      }
      while (y < after.length && added[y]) {
        y++;
      }
      if (x > fromX || y > fromY) {
        changes.add(new Change(fromX, x, fromY, y));
      } else {
        x++;
        y++;
      }
    }
    return changes;
  }
}
