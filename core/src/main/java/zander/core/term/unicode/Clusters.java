package zander.core.term.unicode;

/**
 * Which characters share a cell: marks join what they stand on, and emoji the parts that they are
 * made of (Unicode Standard Annex 29, rules GB9, GB11, GB12 and GB13). Marks that take room by
 * themselves have a cell of their own, as the programs count them.
 */
public final class Clusters {
  /**
   * Characters of a cluster that are kept: as many marks as text in Stream-Safe Format has (Unicode
   * Standard Annex 15, section 13), and what they stand on.
   */
  public static final int LONGEST = 32;

  private static final int JOINER = 0x200d;
  private static final int EMOJI_SELECTOR = 0xfe0f;

  private Clusters() {}

  /**
   * Whether a character joins the one that was printed before it.
   *
   * @param before the whole of what is in the cell before it
   */
  public static boolean joins(CharSequence before, int next) {
    int classes = CharClasses.of(next);
    if ((classes & CharClasses.WIDTH) == 0) {
      return true;
    }
    if ((classes & (CharClasses.PICTOGRAPH | CharClasses.TONE | CharClasses.REGIONAL)) == 0) {
      return false;
    }
    int first = Character.codePointAt(before, 0);
    int lastOne = Character.codePointBefore(before, before.length());
    if ((classes & CharClasses.TONE) != 0) {
      return isPictograph(lastOne);
    }
    if ((classes & CharClasses.REGIONAL) != 0) {
      return before.length() == 2 && (CharClasses.of(first) & CharClasses.REGIONAL) != 0;
    }
    return lastOne == JOINER && before.length() > 1 && isPictograph(first);
  }

  /** Whether a character is never the second of a cluster: the usual case, without a look back. */
  public static boolean standsAlone(int next) {
    int classes = CharClasses.of(next);
    return (classes & CharClasses.WIDTH) != 0
        && (classes & (CharClasses.PICTOGRAPH | CharClasses.TONE | CharClasses.REGIONAL)) == 0;
  }

  private static boolean isPictograph(int codePoint) {
    return (CharClasses.of(codePoint) & CharClasses.PICTOGRAPH) != 0;
  }

  /**
   * Whether the character makes a cluster that took one cell take two: the choice of an emoji's
   * form, or the second half of a flag.
   */
  public static boolean widens(CharSequence before, int next) {
    int first = CharClasses.of(Character.codePointAt(before, 0));
    if ((first & CharClasses.REGIONAL) != 0) {
      return (CharClasses.of(next) & CharClasses.REGIONAL) != 0;
    }
    return (next == EMOJI_SELECTOR && (first & CharClasses.EMOJI_BY_CHOICE) != 0)
        || (CharClasses.of(next) & CharClasses.PICTOGRAPH) != 0
        || (CharClasses.of(next) & CharClasses.TONE) != 0;
  }
}
