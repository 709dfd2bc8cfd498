package zander.core.term;

import java.util.Arrays;
import zander.core.term.screen.CellStyle;

/**
 * The colours that a program has set (OSC 4, 10, 11, 12) in place of the user's. Written under the
 * terminal's lock; may be read by any thread.
 */
public final class Palette {
  /** The place of the colour of text that has none. */
  public static final int TEXT = 256;

  public static final int GROUND = 257;
  public static final int CURSOR = 258;
  private static final int COUNT = 259;

  /** What is not set. */
  private static final int OWN = -1;

  private volatile int[] own;
  private volatile int[] set;

  /**
   * @param own the user's, as 0xRRGGBB: 256, the text's, the ground's, the cursor's
   */
  Palette(int[] own) {
    this.own = own.clone();
    set = none();
  }

  private static int[] none() {
    int[] none = new int[COUNT];
    Arrays.fill(none, OWN);
    return none;
  }

  void reset() {
    set = none();
  }

  void own(int[] colours) {
    own = colours.clone();
  }

  void set(int place, int rgb) {
    int[] changed = set.clone();
    changed[place] = rgb;
    set = changed;
  }

  void reset(int place) {
    set(place, OWN);
  }

  void resetIndexed() {
    int[] changed = set.clone();
    Arrays.fill(changed, 0, TEXT, OWN);
    set = changed;
  }

  /** The colour at a place, as 0xRRGGBB. */
  public int rgb(int place) {
    int now = set[place];
    return now == OWN ? own[place] : now;
  }

  /**
   * The colour of a cell.
   *
   * @param otherwise the place of what is meant by the default
   */
  public int rgb(int colour, int otherwise) {
    if (CellStyle.isRgb(colour)) {
      return CellStyle.value(colour);
    }
    return rgb(CellStyle.isIndexed(colour) ? CellStyle.value(colour) : otherwise);
  }

  /** The cube and the greys of 16 to 255, as {@code xterm-256color} has them. */
  public static int usual(int index) {
    if (index >= 232) {
      int grey = 8 + 10 * (index - 232);
      return (grey << 16) | (grey << 8) | grey;
    }
    int cube = index - 16;
    return (level(cube / 36) << 16) | (level(cube / 6 % 6) << 8) | level(cube % 6);
  }

  private static int level(int step) {
    return step == 0 ? 0 : 55 + 40 * step;
  }
}
