package zander.core.term;

/**
 * What a terminal tells beside what is on its screen. Called on the thread that feeds it, without
 * its lock; must be quick.
 */
public interface TerminalListener {
  /** What the terminal answers by itself; goes to the program. */
  void answer(byte[] bytes);

  /** The bell was rung. */
  default void bell() {}

  /** The program names what it is doing; printable text of at most 256 characters. */
  default void title(String title) {}

  /** The program wants a text on the clipboard, which is nothing but a wish. */
  default void clipboard(String text) {}

  /**
   * The shell says which folder it is in (OSC 7).
   *
   * @param host the name of the computer that it is on, as the program wrote it; may be empty
   * @param path absolute, as the program wrote it
   */
  default void folder(String host, String path) {}
}
