package zander.core.term;

import zander.core.term.parse.Parameters;
import zander.core.term.screen.CellStyle;
import zander.core.term.screen.Screen;
import zander.core.term.screen.ScreenAreas;
import zander.core.term.screen.ScreenAreas.Area;

/** The sequences for rectangles of the screen (DEC, VT510's manual, chapter 5). */
final class AreaSequences {
  private final Screen screen;
  private final ScreenAreas areas;

  AreaSequences(Screen screen) {
    this.screen = screen;
    this.areas = new ScreenAreas(screen);
  }

  void withDollar(int last, Parameters parameters) {
    switch (last) {
      case 'x' -> fill(parameters, 1, parameters.get(0, ' '), false);
      case 'z' -> fill(parameters, 0, ' ', false);
      case '{' -> fill(parameters, 0, ' ', true);
      case 'v' -> copy(parameters);
      case 'r' -> restyle(parameters, false);
      case 't' -> restyle(parameters, true);
      default -> {
        // Not known.
      }
    }
  }

  /** What the next ones that change how it looks go over (DECSACE). */
  void extent(int code) {
    if (code <= 2) {
      screen.restylesText(code != 2);
    }
  }

  private void fill(Parameters parameters, int at, int code, boolean selective) {
    if ((code >= ' ' && code < 0x7f) || (code >= 0xa0 && code <= 0xff)) {
      areas.fill(area(parameters, at), code, selective);
    }
  }

  private void copy(Parameters parameters) {
    areas.copy(
        area(parameters, 0),
        parameters.times(5, screen.rows()) - 1,
        parameters.times(6, screen.columns()) - 1);
  }

  /** Sets attributes (DECCARA), or turns each of them round (DECRARA). */
  private void restyle(Parameters parameters, boolean turned) {
    Area area = area(parameters, 0);
    if (parameters.count() <= 4) {
      areas.restyle(area, style -> changed(style, 0, turned));
    }
    for (int i = 4; i < parameters.count(); i++) {
      int code = parameters.get(i, 0);
      areas.restyle(area, style -> changed(style, code, turned));
    }
  }

  private static long changed(long style, int code, boolean turned) {
    boolean lined = CellStyle.underline(style) != CellStyle.NONE;
    return switch (code) {
      case 0 -> {
        long bits = CellStyle.BOLD | CellStyle.BLINK | CellStyle.REVERSE;
        long flipped = turned ? style ^ bits : style & ~bits;
        yield lines(flipped, turned && !lined);
      }
      case 1 -> turned ? style ^ CellStyle.BOLD : style | CellStyle.BOLD;
      case 4 -> lines(style, !turned || !lined);
      case 5 -> turned ? style ^ CellStyle.BLINK : style | CellStyle.BLINK;
      case 7 -> turned ? style ^ CellStyle.REVERSE : style | CellStyle.REVERSE;
      case 22 -> turned ? style : style & ~CellStyle.BOLD;
      case 24 -> turned ? style : lines(style, false);
      case 25 -> turned ? style : style & ~CellStyle.BLINK;
      case 27 -> turned ? style : style & ~CellStyle.REVERSE;
      default -> style;
    };
  }

  private static long lines(long style, boolean on) {
    return CellStyle.withUnderline(style, on ? CellStyle.SINGLE : CellStyle.NONE);
  }

  private Area area(Parameters parameters, int at) {
    int bottom = parameters.get(at + 2, 0);
    int right = parameters.get(at + 3, 0);
    return new Area(
        parameters.times(at, screen.rows()) - 1,
        bottom == 0 ? screen.rows() : Math.min(bottom, screen.rows()),
        parameters.times(at + 1, screen.columns()) - 1,
        right == 0 ? screen.columns() : Math.min(right, screen.columns()));
  }
}
