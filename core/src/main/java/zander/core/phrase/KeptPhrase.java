package zander.core.phrase;

/** What is wrong with what is kept for later: on this computer, or to put a change back. */
public enum KeptPhrase implements Phrase.Key {
  BEFORE_NOT_KEPT,
  COPIES_WITHOUT_END(1),
  DAMAGED,
  JOURNAL_IN_USE(1),
  LISTS_BEFORE_NOT_KEPT,
  NAME_NOT_WRITABLE(2),
  NOT_AS_LOOKED_AT,
  NOT_SEALED,
  NOT_WRITTEN_BACK,
  OTHER_FORM,
  TOO_LITTLE_NOTED,
  TOO_MANY_LISTS,
  TRASH_FULL_OF(1),
  VAULT_CLOSED;

  private final int places;

  KeptPhrase() {
    this(0);
  }

  KeptPhrase(int places) {
    this.places = places;
  }

  @Override
  public int places() {
    return places;
  }
}
