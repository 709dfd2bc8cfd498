package zander.core.phrase;

/** Why a key is not lent to one server for the way to another; each but two names a server. */
public enum LoanPhrase implements Phrase.Key {
  ACTS_AS_ANOTHER(0),
  NO_KEY_TAKEN(1),
  NO_OPENSSH(1),
  NO_PLAIN_HOST_KEY(1),
  NO_SHELL(0),
  OLD_OPENSSH(1);

  private final int places;

  LoanPhrase(int places) {
    this.places = places;
  }

  @Override
  public int places() {
    return places;
  }
}
