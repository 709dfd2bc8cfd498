package zander.core.phrase;

/** What is wrong with a key file, a certificate or the vault. */
public enum KeyFilePhrase implements Phrase.Key {
  ANOTHER_VAULT,
  CIPHER_UNKNOWN(1),
  CUT_OFF,
  DAMAGED_BEGINNING,
  FOR_ANOTHER_KEY(1),
  HEAD_UNREADABLE,
  HOLDS_NO_KEY,
  MAY_NOT_READ,
  MORE_THAN_ONE(2),
  NOT_KEY_SIZED,
  NOT_MADE,
  NOT_OF_A_USER,
  NOT_VALID_BEFORE(1),
  NOT_VALID_NOW(2),
  NO_CERTIFICATE,
  NO_END,
  NO_KEY_BEGINS_SO,
  NO_KNOWN_FORM,
  NO_SUCH_FILE,
  NO_VAULT,
  OPEN_TO_OTHERS,
  OTHER_VERSION(1),
  PUBLIC_HALF,
  TOO_MANY_ROUNDS(1),
  UNREADABLE,
  UNREADABLE_CONTENT,
  VAULT_TOO_LARGE,
  WRONG_OR_CHANGED,
  WRONG_PASSPHRASE;

  private final int places;

  KeyFilePhrase() {
    this(0);
  }

  KeyFilePhrase(int places) {
    this.places = places;
  }

  @Override
  public int places() {
    return places;
  }
}
