package zander.core.phrase;

import java.io.IOException;
import org.jspecify.annotations.Nullable;

/** A failure for a reason that Zander itself found. */
public class ExplainedException extends IOException {
  private final transient Phrase phrase;

  public ExplainedException(Phrase phrase) {
    this(phrase, null);
  }

  public ExplainedException(Phrase phrase, @Nullable Throwable cause) {
    super(phrase.toString(), cause);
    this.phrase = phrase;
  }

  public Phrase phrase() {
    return phrase;
  }
}
