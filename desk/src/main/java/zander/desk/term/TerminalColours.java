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
    int background = CellStyle.background(style);
    Color ink = color(palette.rgb(foreground, reversed ? Palette.GROUND : Palette.TEXT));
    Color other = color(palette.rgb(reversed ? Palette.TEXT : Palette.GROUND));
    Color ground = color(palette.rgb(background, reversed ? Palette.TEXT : Palette.GROUND));
    if (foreground == CellStyle.DEFAULT
        && background != CellStyle.DEFAULT
        && contrast(other, ground) > contrast(ink, ground)) {
      // Whoever sets a ground alone does not know the user's ink: the one that is read is taken.
      ink = other;
    }
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

  /** How well two colours are told apart, from 1 to 21 (WCAG 2.1, contrast ratio). */
  static double contrast(Color one, Color another) {
    double first = luminance(one) + 0.05;
    double second = luminance(another) + 0.05;
    return Math.max(first, second) / Math.min(first, second);
  }

  private static double luminance(Color colour) {
    return 0.2126 * linear(colour.getRed())
        + 0.7152 * linear(colour.getGreen())
        + 0.0722 * linear(colour.getBlue());
  }

  private static double linear(double part) {
    return part <= 0.03928 ? part / 12.92 : Math.pow((part + 0.055) / 1.055, 2.4);
  }

  /** The colour of the line below the text. */
  Color underline(int colour, Color ink) {
    return colour == CellStyle.DEFAULT ? ink : color(palette.rgb(colour, Palette.TEXT));
  }

  static Color color(int rgb) {
    return Color.rgb((rgb >> 16) & 0xff, (rgb >> 8) & 0xff, rgb & 0xff);
  }
}
