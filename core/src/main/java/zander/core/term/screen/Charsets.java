package zander.core.term.screen;

/**
 * The four sets of characters that are designated, and which of them are in use for 0x20 to 0x7e
 * (ECMA-35, section 9; DEC's sets as in the VT510's manual, chapter 2).
 *
 * @param sets four letters: {@code B} ASCII, {@code 0} line drawing, {@code A} United Kingdom
 * @param inUse 0 to 3
 * @param once the one for the next character alone, or -1
 */
public record Charsets(String sets, int inUse, int once) {
  public static final Charsets ASCII = new Charsets("BBBB", 0, -1);

  /** Of 0x60 to 0x7e in the set for drawing lines. */
  private static final String DRAWING =
      "\u25c6\u2592\u2409\u240c\u240d\u240a\u00b0\u00b1\u2424\u240b\u2518\u2510\u250c\u2514\u253c"
          + "\u23ba\u23bb\u2500\u23bc\u23bd\u251c\u2524\u2534\u252c\u2502\u2264\u2265\u03c0\u2260"
          + "\u00a3\u00b7";

  /** With another set at a place; what is not known is ASCII. */
  public Charsets designate(int place, int set) {
    char known = set == '0' || set == 'A' ? (char) set : 'B';
    return new Charsets(sets.substring(0, place) + known + sets.substring(place + 1), inUse, once);
  }

  /** With another place in use from now on. */
  public Charsets use(int place) {
    return new Charsets(sets, place, -1);
  }

  /** With another place for the next character. */
  public Charsets useOnce(int place) {
    return new Charsets(sets, inUse, place);
  }

  Charsets after() {
    return once < 0 ? this : new Charsets(sets, inUse, -1);
  }

  boolean isPlain() {
    return once < 0 && sets.charAt(inUse) == 'B';
  }

  /** What a byte of 0x20 to 0x7e stands for. */
  int character(int code) {
    char set = sets.charAt(once < 0 ? inUse : once);
    if (set == '0' && code >= 0x5f) {
      return code == 0x5f ? 0xa0 : DRAWING.charAt(code - 0x60);
    }
    return set == 'A' && code == '#' ? 0xa3 : code;
  }
}
