package zander.core.edit;

import zander.core.phrase.ExplainedException;
import zander.core.phrase.Phrase;

/** Content that cannot be edited as text without harm. */
public final class NotTextException extends ExplainedException {
  private final long at;

  /**
   * @param at the byte it was found at, from 0
   */
  public NotTextException(Phrase why, long at) {
    super(why);
    this.at = at;
  }

  public long at() {
    return at;
  }
}
