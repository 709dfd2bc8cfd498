package zander.core.term;

import zander.core.term.parse.Parameters;
import zander.core.term.screen.CellStyle;
import zander.core.term.screen.Decoration;
import zander.core.term.screen.Screen;

/**
 * Sets how characters look (SGR: ECMA-48 section 8.3.117, colours by ISO 8613-6 section 13.1.8,
 * with colons as there or with semicolons).
 */
final class StyleSequences {
  private final Screen screen;

  StyleSequences(Screen screen) {
    this.screen = screen;
  }

  void apply(Parameters parameters) {
    if (parameters.count() == 0) {
      one(0);
      return;
    }
    for (int i = 0; i < parameters.count(); ) {
      int code = parameters.get(i, 0);
      int end = i + 1;
      while (parameters.isSub(end)) {
        end++;
      }
      if (code == 38 || code == 48 || code == 58) {
        i = end > i + 1 ? bySubs(code, parameters, i, end) : bySemicolons(code, parameters, i);
      } else {
        if (end == i + 1) {
          one(code);
        } else if (code == 4) {
          underline(parameters.get(i + 1, CellStyle.SINGLE));
        }
        i = end;
      }
    }
  }

  private int bySubs(int code, Parameters parameters, int at, int end) {
    int kind = parameters.get(at + 1, -1);
    if (kind == 5 && end - at >= 3) {
      index(code, parameters.get(at + 2, 0));
    } else if (kind == 2 && end - at >= 5) {
      // With the space of colours before the parts, or without, as many programs write it.
      int first = end - at >= 6 ? at + 3 : at + 2;
      parts(code, parameters, first);
    }
    return end;
  }

  private int bySemicolons(int code, Parameters parameters, int at) {
    int kind = parameters.get(at + 1, -1);
    if (kind == 5) {
      index(code, parameters.get(at + 2, 0));
      return at + 3;
    }
    if (kind == 2) {
      parts(code, parameters, at + 2);
      return at + 5;
    }
    return at + 2;
  }

  private void index(int code, int index) {
    if (index <= 255) {
      colour(code, CellStyle.indexed(index));
    }
  }

  private void parts(int code, Parameters parameters, int at) {
    int red = parameters.get(at, 0);
    int green = parameters.get(at + 1, 0);
    int blue = parameters.get(at + 2, 0);
    if (Math.max(red, Math.max(green, blue)) <= 255) {
      colour(code, CellStyle.rgb(red, green, blue));
    }
  }

  private void colour(int code, int colour) {
    switch (code) {
      case 38 -> screen.style(CellStyle.withForeground(screen.style(), colour));
      case 48 -> screen.style(CellStyle.withBackground(screen.style(), colour));
      default -> screen.decoration(Decoration.underlined(screen.decoration(), colour));
    }
  }

  private void underline(int way) {
    if (way >= CellStyle.NONE && way <= CellStyle.DASHED) {
      screen.style(CellStyle.withUnderline(screen.style(), way));
    }
  }

  private void set(long attribute) {
    screen.style(screen.style() | attribute);
  }

  private void unset(long attributes) {
    screen.style(screen.style() & ~attributes);
  }

  private void one(int code) {
    switch (code) {
      case 0 -> {
        screen.style(screen.style() & CellStyle.PROTECTED);
        screen.decoration(Decoration.underlined(screen.decoration(), CellStyle.DEFAULT));
      }
      case 1 -> set(CellStyle.BOLD);
      case 2 -> set(CellStyle.FAINT);
      case 3 -> set(CellStyle.ITALIC);
      case 4 -> underline(CellStyle.SINGLE);
      case 5, 6 -> set(CellStyle.BLINK);
      case 7 -> set(CellStyle.REVERSE);
      case 8 -> set(CellStyle.HIDDEN);
      case 9 -> set(CellStyle.STRIKE);
      case 21 -> underline(CellStyle.DOUBLE);
      case 22 -> unset(CellStyle.BOLD | CellStyle.FAINT);
      case 23 -> unset(CellStyle.ITALIC);
      case 24 -> underline(CellStyle.NONE);
      case 25 -> unset(CellStyle.BLINK);
      case 27 -> unset(CellStyle.REVERSE);
      case 28 -> unset(CellStyle.HIDDEN);
      case 29 -> unset(CellStyle.STRIKE);
      case 39 -> colour(38, CellStyle.DEFAULT);
      case 49 -> colour(48, CellStyle.DEFAULT);
      case 53 -> set(CellStyle.OVERLINE);
      case 55 -> unset(CellStyle.OVERLINE);
      case 59 -> colour(58, CellStyle.DEFAULT);
      default -> sixteen(code);
    }
  }

  private void sixteen(int code) {
    int tens = code / 10;
    int unit = code % 10;
    if (unit > 7) {
      return;
    }
    switch (tens) {
      case 3 -> colour(38, CellStyle.indexed(unit));
      case 4 -> colour(48, CellStyle.indexed(unit));
      case 9 -> colour(38, CellStyle.indexed(unit + 8));
      case 10 -> colour(48, CellStyle.indexed(unit + 8));
      default -> {
        // Not of any use to a screen: fonts, frames, and what nobody knows.
      }
    }
  }
}
