package zander.core.phrase;

/** Why an account cannot do something, or the right to act as another one has not come about. */
public enum AccountPhrase implements Phrase.Key {
  ASKS_EACH_TIME,
  NO_ANSWER_IN_A_MINUTE,
  PASSWORD_ASKED_TWICE,
  RIGHT_ENDED,
  WANTS_A_TERMINAL;

  @Override
  public int places() {
    return 0;
  }
}
