package zander.core.term.parse;

/** What a {@link SequenceParser} found, in the order of the stream. Called on its thread. */
public interface SequenceHandler {
  /** A run of characters from 0x20 to 0x7e, in the parser's input; it must not be kept. */
  void text(byte[] bytes, int from, int to);

  /** One character beyond ASCII, or U+FFFD for bytes that are no UTF-8. */
  void print(int codePoint);

  /** A control of C0, but for those that steer the parser (ESC, CAN, SUB). */
  void control(int code);

  /**
   * An escape sequence, or a control of C1 in its form after ESC.
   *
   * @param intermediates of 0x20 to 0x2f; 0 for none, two as the first times 256 plus the second
   */
  void escape(int intermediates, int last);

  /**
   * A control sequence (CSI).
   *
   * @param marker one of {@code < = > ?} before the parameters, or 0
   * @param intermediates as in {@link #escape}
   */
  void sequence(int marker, int intermediates, int last, Parameters parameters);

  /** A string for the operating system (OSC); never longer than the parser lets one be. */
  void command(String text);

  /** A string for the device (DCS), with what stood before it as in {@link #sequence}. */
  void device(int marker, int intermediates, int last, Parameters parameters, String text);
}
