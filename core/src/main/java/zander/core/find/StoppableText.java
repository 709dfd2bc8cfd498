package zander.core.find;

import zander.core.work.Cancellation;

/**
 * A text whose reading ends when that is wished: an expression may look at it for ever.
 *
 * @param onRead run before each character is given; throws to end the reading
 */
record StoppableText(String text, Runnable onRead) implements CharSequence {
  StoppableText(String text, Cancellation stop) {
    this(text, stop::throwIfStopped);
  }

  @Override
  public int length() {
    return text.length();
  }

  @Override
  public char charAt(int index) {
    onRead.run();
    return text.charAt(index);
  }

  @Override
  public CharSequence subSequence(int start, int end) {
    return text.substring(start, end);
  }

  @Override
  public String toString() {
    return text;
  }
}
