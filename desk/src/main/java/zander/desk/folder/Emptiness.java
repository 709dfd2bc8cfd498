package zander.desk.folder;

/** Why a folder shows nothing. */
public enum Emptiness {
  EMPTY,
  /** All there is has a name with a dot in front. */
  ONLY_HIDDEN,
  /** What is typed into the narrowing fits nothing. */
  NOTHING_FITS;

  /**
   * @param hidden how many of all are hidden by their names; 0 while such are shown
   */
  public static Emptiness of(long all, long hidden, boolean narrowed) {
    return all == 0 ? EMPTY : hidden == all && !narrowed ? ONLY_HIDDEN : NOTHING_FITS;
  }
}
