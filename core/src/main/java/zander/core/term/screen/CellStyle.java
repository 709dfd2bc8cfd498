package zander.core.term.screen;

/**
 * How a cell looks, packed into a {@code long} so that a row of styles is one array: the colour of
 * the text in bits 0 to 25, that of the ground in 26 to 51, the attributes above. 0 is plain.
 *
 * <p>A colour is {@link #DEFAULT}, {@link #indexed} or {@link #rgb}.
 */
public final class CellStyle {
  public static final long PLAIN = 0;
  public static final int DEFAULT = 0;

  public static final long BOLD = 1L << 52;
  public static final long FAINT = 1L << 53;
  public static final long ITALIC = 1L << 54;
  public static final long BLINK = 1L << 58;
  public static final long REVERSE = 1L << 59;
  public static final long HIDDEN = 1L << 60;
  public static final long STRIKE = 1L << 61;
  public static final long OVERLINE = 1L << 62;

  /** Not to be erased by DECSED and DECSEL (DECSCA). */
  public static final long PROTECTED = 1L << 63;

  private static final int UNDERLINE_AT = 55;
  private static final int COLOUR_BITS = 26;
  private static final long COLOUR = (1L << COLOUR_BITS) - 1;
  private static final int INDEXED = 1 << 24;
  private static final int RGB = 2 << 24;
  private static final int VALUE = 0xff_ffff;

  /** The ways of {@link #underline}. */
  public static final int NONE = 0;

  public static final int SINGLE = 1;
  public static final int DOUBLE = 2;
  public static final int CURLY = 3;
  public static final int DOTTED = 4;
  public static final int DASHED = 5;

  private CellStyle() {}

  /** A colour of the palette, 0 to 255. */
  public static int indexed(int index) {
    return INDEXED | (index & 0xff);
  }

  /** A colour by its parts, each 0 to 255. */
  public static int rgb(int red, int green, int blue) {
    return RGB | ((red & 0xff) << 16) | ((green & 0xff) << 8) | (blue & 0xff);
  }

  public static boolean isIndexed(int colour) {
    return (colour & INDEXED) != 0;
  }

  public static boolean isRgb(int colour) {
    return (colour & RGB) != 0;
  }

  /** The index, or the parts as 0xRRGGBB. */
  public static int value(int colour) {
    return colour & VALUE;
  }

  public static int foreground(long style) {
    return (int) (style & COLOUR);
  }

  public static int background(long style) {
    return (int) ((style >>> COLOUR_BITS) & COLOUR);
  }

  public static long withForeground(long style, int colour) {
    return (style & ~COLOUR) | colour;
  }

  public static long withBackground(long style, int colour) {
    return (style & ~(COLOUR << COLOUR_BITS)) | ((long) colour << COLOUR_BITS);
  }

  /** How it is underlined: {@link #NONE} to {@link #DASHED}. */
  public static int underline(long style) {
    return (int) ((style >>> UNDERLINE_AT) & 7);
  }

  public static long withUnderline(long style, int way) {
    return (style & ~(7L << UNDERLINE_AT)) | ((long) way << UNDERLINE_AT);
  }

  public static boolean has(long style, long attribute) {
    return (style & attribute) != 0;
  }

  /** What erasing leaves: the ground alone (the terminal description's {@code bce}). */
  static long erased(long style) {
    return style & (COLOUR << COLOUR_BITS);
  }
}
