package zander.core.term.parse;

import java.util.Arrays;

/**
 * The numbers of a control sequence (ECMA-48, section 5.4.2): separated by semicolons, and each
 * with subparameters after colons. A number is at most {@link #HIGHEST}, and no more than {@link
 * #MOST} are kept, so that no sequence costs more than a known amount.
 */
public final class Parameters {
  /** Of numbers in one sequence, subparameters included. */
  public static final int MOST = 32;

  /** A larger number counts as this one: no screen and no code is larger. */
  public static final int HIGHEST = 65_535;

  private static final int ABSENT = -1;

  private final int[] values = new int[MOST];
  private final boolean[] sub = new boolean[MOST];
  private int count;
  private boolean open;
  private boolean full;

  void clear() {
    count = 0;
    open = false;
    full = false;
  }

  void digit(int digit) {
    if (full) {
      return;
    }
    openOne(false);
    int old = Math.max(values[count - 1], 0);
    values[count - 1] = Math.min(HIGHEST, old * 10 + digit);
  }

  void separate(boolean colon) {
    if (full) {
      return;
    }
    openOne(false);
    if (count == MOST) {
      full = true;
      return;
    }
    open = false;
    openOne(colon);
  }

  private void openOne(boolean colon) {
    if (!open) {
      values[count] = ABSENT;
      sub[count] = colon;
      count++;
      open = true;
    }
  }

  /** How many there are, subparameters included; an empty list has none. */
  public int count() {
    return count;
  }

  /** Whether it is there and has digits. */
  public boolean isGiven(int index) {
    return index < count && values[index] != ABSENT;
  }

  /** Whether it stands after a colon. */
  public boolean isSub(int index) {
    return index < count && sub[index];
  }

  /**
   * The number at an index.
   *
   * @param otherwise what one that is not there, or is empty, counts as
   */
  public int get(int index, int otherwise) {
    return isGiven(index) ? values[index] : otherwise;
  }

  /** A count of cells, rows or times, where none and 0 mean 1; at most {@code most}. */
  public int times(int index, int most) {
    return Math.min(Math.max(get(index, 1), 1), most);
  }

  @Override
  public String toString() {
    return Arrays.toString(Arrays.copyOf(values, count));
  }
}
