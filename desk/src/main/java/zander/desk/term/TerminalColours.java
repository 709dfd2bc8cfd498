package zander.desk.term;

import javafx.scene.paint.Color;
import zander.core.term.Palette;
import zander.core.term.screen.CellStyle;

/** The colours of the terminal: sixteen of our own, the usual cube and greys, and any RGB. */
final class TerminalColours {
  static final Color SELECTED = Color.web("#2c6a5a");
  static final Color FOUND = Color.web("#6b5420");
  static final Color FOUND_NOW = Color.web("#b0842e");

  /** As the palette takes them. */
  static final int[] OWN = new int[Palette.CURSOR + 1];

  private static final int[] SIXTEEN = {
    0x22302f, 0xd9694f, 0x7fb069, 0xe0b257, 0x6ea3cf, 0xb58ac4, 0x7fb8a4, 0xc9d1ca,
    0x5f726f, 0xef8a72, 0x9ccf86, 0xf3cf80, 0x93c0e6, 0xd0acdc, 0xa4d6c5, 0xf7faf6
  };

  static {
    System.arraycopy(SIXTEEN, 0, OWN, 0, SIXTEEN.length);
    for (int i = SIXTEEN.length; i < Palette.TEXT; i++) {
      OWN[i] = Palette.usual(i);
    }
    OWN[Palette.TEXT] = 0xdfe6df;
    OWN[Palette.GROUND] = 0x13201f;
    OWN[Palette.CURSOR] = 0xe0b257;
  }

  private final Palette palette;
  private boolean reversed;

  TerminalColours(Palette palette) {
    this.palette = palette;
  }

  /** Whether text and ground of the whole screen are exchanged (DECSCNM). */
  void reversed(boolean on) {
    reversed = on;
  }

  /** The two colours of a style, with reverse, faint and hidden worked in. */
  record Pair(Color ink, Color ground) {}

  Color ground() {
    return color(palette.rgb(reversed ? Palette.TEXT : Palette.GROUND));
  }

  Color cursor() {
    return color(palette.rgb(Palette.CURSOR));
  }

  Pair of(long style) {
    int foreground = CellStyle.foreground(style);
    if (CellStyle.has(style, CellStyle.BOLD)
        && CellStyle.isIndexed(foreground)
        && CellStyle.value(foreground) < 8) {
      foreground = CellStyle.indexed(CellStyle.value(foreground) + 8);
    }
    Color ink = color(palette.rgb(foreground, reversed ? Palette.GROUND : Palette.TEXT));
    Color ground =
        color(palette.rgb(CellStyle.background(style), reversed ? Palette.TEXT : Palette.GROUND));
    boolean turned = CellStyle.has(style, CellStyle.REVERSE);
    Color above = turned ? ground : ink;
    Color below = turned ? ink : ground;
    if (CellStyle.has(style, CellStyle.FAINT)) {
      above = above.interpolate(below, 0.4);
    }
    if (CellStyle.has(style, CellStyle.HIDDEN)) {
      above = below;
    }
    return new Pair(above, below);
  }

  /** The colour of the line below the text. */
  Color underline(int colour, Color ink) {
    return colour == CellStyle.DEFAULT ? ink : color(palette.rgb(colour, Palette.TEXT));
  }

  private static Color color(int rgb) {
    return Color.rgb((rgb >> 16) & 0xff, (rgb >> 8) & 0xff, rgb & 0xff);
  }
}
