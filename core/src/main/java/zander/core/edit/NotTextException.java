package zander.core.edit;

import java.io.IOException;

/** Content that cannot be edited as text without harm. */
public final class NotTextException extends IOException {
  private final long at;

  /**
   * @param at the byte it was found at, from 0
   */
  public NotTextException(String message, long at) {
    super(message);
    this.at = at;
  }

  public long at() {
    return at;
  }
}
