package zander.core.phrase;

/** What one word of a narrowing means, or why it cannot be read. */
public enum TermPhrase implements Phrase.Key {
  BOTH(2),
  BRACKET_OPEN,
  BYTES(1),
  CHANGED_WITHIN(1),
  DAYS(1),
  EVERYONE_HAS(1),
  FILES_ONLY,
  FOLDERS_ONLY,
  GROUP_IS(1),
  HAS(2),
  HAVE(2),
  HOURS(1),
  LACK(2),
  LACKS(2),
  LARGER_THAN(1),
  LINKS_ONLY,
  MINUTES(1),
  MODE_FORM,
  MODE_IS(1),
  NAME_HAS(1),
  NAME_LIKE(1),
  NEEDS_GROUP,
  NEEDS_OWNER,
  NOBODY_HAS(1),
  NOT(1),
  NOT_CHANGED_FOR(1),
  ONE_DAY,
  ONE_HOUR,
  ONE_MINUTE,
  ONE_WEEK,
  ONE_YEAR,
  OWNED_BY(1),
  SET_ID_FORM,
  SIZE_FORM,
  SIZE_TOO_LARGE,
  SMALLER_THAN(1),
  THE_GROUP,
  THE_OTHERS,
  THE_OWNER,
  TIME_FORM,
  TYPE_FORM,
  WEEKS(1),
  YEARS(1);

  private final int places;

  TermPhrase() {
    this(0);
  }

  TermPhrase(int places) {
    this.places = places;
  }

  @Override
  public int places() {
    return places;
  }
}
