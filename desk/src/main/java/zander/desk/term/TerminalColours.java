package zander.desk.term;

import com.techsenger.jeditermfx.core.TerminalColor;
import com.techsenger.jeditermfx.core.TextStyle;
import javafx.scene.paint.Color;

/** The colours of the terminal: sixteen of our own, the usual cube and greys, and any RGB. */
final class TerminalColours {
  static final Color GROUND = Color.web("#13201f");
  static final Color INK = Color.web("#dfe6df");
  static final Color SELECTED = Color.web("#2c6a5a");
  static final Color CURSOR = Color.web("#e0b257");

  private static final Color[] SIXTEEN = {
    Color.web("#22302f"), Color.web("#d9694f"), Color.web("#7fb069"), Color.web("#e0b257"),
    Color.web("#6ea3cf"), Color.web("#b58ac4"), Color.web("#7fb8a4"), Color.web("#c9d1ca"),
    Color.web("#5f726f"), Color.web("#ef8a72"), Color.web("#9ccf86"), Color.web("#f3cf80"),
    Color.web("#93c0e6"), Color.web("#d0acdc"), Color.web("#a4d6c5"), Color.web("#f7faf6")
  };

  private TerminalColours() {}

  /** The two colours of a style, with inverse and dim worked in. */
  record Pair(Color ink, Color ground) {}

  static Pair of(TextStyle style) {
    Color ink = colour(style.getForeground(), INK);
    Color ground = colour(style.getBackground(), GROUND);
    if (style.hasOption(TextStyle.Option.BOLD) && style.getForeground() != null) {
      ink = brighter(style.getForeground(), ink);
    }
    if (style.hasOption(TextStyle.Option.DIM)) {
      ink = ink.interpolate(ground, 0.4);
    }
    if (style.hasOption(TextStyle.Option.HIDDEN)) {
      ink = ground;
    }
    return style.hasOption(TextStyle.Option.INVERSE)
        ? new Pair(ground, ink)
        : new Pair(ink, ground);
  }

  private static Color brighter(TerminalColor colour, Color otherwise) {
    boolean low = colour.isIndexed() && colour.getColorIndex() < 8;
    return low ? SIXTEEN[colour.getColorIndex() + 8] : otherwise;
  }

  private static Color colour(TerminalColor colour, Color otherwise) {
    if (colour == null) {
      return otherwise;
    }
    if (!colour.isIndexed()) {
      var rgb = colour.toColor();
      return Color.rgb(rgb.getRed(), rgb.getGreen(), rgb.getBlue());
    }
    int index = colour.getColorIndex();
    if (index < 16) {
      return SIXTEEN[Math.max(0, index)];
    }
    if (index >= 232) {
      int grey = 8 + 10 * (Math.min(index, 255) - 232);
      return Color.rgb(grey, grey, grey);
    }
    int cube = index - 16;
    return Color.rgb(level(cube / 36), level(cube / 6 % 6), level(cube % 6));
  }

  private static int level(int step) {
    return step == 0 ? 0 : 55 + 40 * step;
  }
}
