package zander.core.work;

/**
 * Text of a server's as people can trust it: what cannot be seen, or turns the direction of what
 * can be, stands as a mark, {@code \u202e}, so that two names that look alike are alike.
 */
public final class VisibleText {
  private VisibleText() {}

  /**
   * Whether a character has no shape of its own, or changes how others are shown: controls,
   * formats, separators and spaces other than the plain one, fillers and selectors (Unicode
   * Standard, sections 23.1 to 23.4, and the property Default_Ignorable_Code_Point), and what
   * stands for no character.
   */
  public static boolean isHidden(int c) {
    return switch (Character.getType(c)) {
      case Character.CONTROL,
          Character.FORMAT,
          Character.LINE_SEPARATOR,
          Character.PARAGRAPH_SEPARATOR,
          Character.SURROGATE,
          Character.PRIVATE_USE,
          Character.UNASSIGNED ->
          true;
      case Character.SPACE_SEPARATOR -> c != ' ';
      default -> isFiller(c);
    };
  }

  private static boolean isFiller(int c) {
    return c == 0x034f
        || c == 0x115f
        || c == 0x1160
        || c == 0x17b4
        || c == 0x17b5
        || (c >= 0x180b && c <= 0x180f)
        || c == 0x2800
        || c == 0x3164
        || (c >= 0xfe00 && c <= 0xfe0f)
        || c == 0xffa0
        || (c >= 0xe0100 && c <= 0xe01ef);
  }

  /** What stands for a hidden character. */
  public static String mark(int c) {
    return String.format(c > 0xffff ? "\\U%08x" : c > 0xff ? "\\u%04x" : "\\x%02x", c);
  }

  /** The text with marks; its line ends stay. */
  public static String of(String text) {
    StringBuilder shown = new StringBuilder(text.length());
    text.codePoints()
        .forEach(
            c -> {
              if (c == '\n' || !isHidden(c)) {
                shown.appendCodePoint(c);
              } else {
                shown.append(mark(c));
              }
            });
    return shown.toString();
  }
}
