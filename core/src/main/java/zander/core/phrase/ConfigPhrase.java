package zander.core.phrase;

/** What was found wrong in an OpenSSH configuration, or is not done here. */
public enum ConfigPhrase implements Phrase.Key {
  AT_LINE(3),
  IN_FILE(2),
  MATCH_ALL_ALONE,
  MATCH_ASKS_FOR(1),
  MATCH_RUNS_A_COMMAND,
  MATCH_SAYS_NOTHING(1),
  NO_SUCH_KEYWORD(1),
  NO_VALUE(1),
  QUOTE_OPEN(1),
  TOO_DEEP,
  TOO_LARGE,
  TOO_MANY_FILES(1),
  UNREADABLE(1);

  private final int places;

  ConfigPhrase() {
    this(0);
  }

  ConfigPhrase(int places) {
    this.places = places;
  }

  @Override
  public int places() {
    return places;
  }
}
