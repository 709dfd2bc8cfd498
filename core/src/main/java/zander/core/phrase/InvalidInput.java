package zander.core.phrase;

import org.jspecify.annotations.Nullable;

/** What was typed or read is not what it should be. */
public final class InvalidInput extends IllegalArgumentException {
  private final transient Phrase phrase;

  public InvalidInput(Phrase phrase) {
    this(phrase, null);
  }

  public InvalidInput(Phrase phrase, @Nullable Throwable cause) {
    super(phrase.toString(), cause);
    this.phrase = phrase;
  }

  public Phrase phrase() {
    return phrase;
  }
}
