package zander.core.phrase;

/** What is wrong with what was typed, or with a file that people write themselves. */
public enum InputPhrase implements Phrase.Key {
  ADDRESS_FORM,
  ADDRESS_WITHOUT_ACCOUNT,
  ARCHIVE_ENDING,
  BOOK_DAMAGED_AT_LINE(2),
  BOOK_DAMAGED_IN(1),
  BOOK_OF_VERSION(1),
  CHECKSUM_FORM,
  CLAUSE_MISSING,
  JUMPS_IN_A_CIRCLE(1),
  JUMP_UNKNOWN(1),
  MODE_DIGITS,
  MODE_LENGTH,
  MODE_OPERATOR(1),
  MODE_OPERATOR_AFTER(1),
  NAME_TAKEN(1),
  NO_BOOK,
  NO_FILE_NAME(1),
  NO_WEB_ADDRESS(1),
  PATH_NOT_ABSOLUTE(1),
  PATH_WITH_ZERO,
  PORT_RANGE(1),
  WEB_ADDRESS_BEGINS;

  private final int places;

  InputPhrase() {
    this(0);
  }

  InputPhrase(int places) {
    this.places = places;
  }

  @Override
  public int places() {
    return places;
  }
}
