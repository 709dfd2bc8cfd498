package zander.desk.term;

import javafx.scene.paint.Color;
import zander.core.term.Palette;
import zander.core.term.screen.CellStyle;

/** What the styles of cells look like, by the colours that were chosen and what a program set. */
final class TerminalColours {
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

  static Color color(int rgb) {
    return Color.rgb((rgb >> 16) & 0xff, (rgb >> 8) & 0xff, rgb & 0xff);
  }
}
