package zander.core.term;

import java.util.List;
import java.util.function.Consumer;
import zander.core.term.TerminalModes.CursorShape;
import zander.core.term.parse.Parameters;
import zander.core.term.parse.SequenceHandler;
import zander.core.term.screen.Row;
import zander.core.term.screen.Screen;

/**
 * Does what the controls and sequences say, by name: ECMA-48 for those without a mark, DEC's VT510
 * manual (chapter 5) for the others. What is not known does nothing.
 */
final class SequenceDispatch implements SequenceHandler {
  private final Screen screen;
  private final TerminalModes modes;
  private final Palette palette;
  private final ModeSequences modeSequences;
  private final StyleSequences styles;
  private final EditSequences edits;
  private final AreaSequences areas;
  private final Reports reports;
  private final CommandStrings commands;
  private final List<Consumer<TerminalListener>> told;

  SequenceDispatch(
      Screen screen,
      TerminalModes modes,
      ModeSequences modeSequences,
      Palette palette,
      Reports reports,
      List<Consumer<TerminalListener>> told) {
    this.screen = screen;
    this.modes = modes;
    this.palette = palette;
    this.reports = reports;
    this.told = told;
    this.modeSequences = modeSequences;
    this.styles = new StyleSequences(screen);
    this.edits = new EditSequences(screen);
    this.areas = new AreaSequences(screen);
    this.commands = new CommandStrings(screen, palette, reports, told);
  }

  @Override
  public void text(byte[] bytes, int from, int to) {
    screen.text().print(bytes, from, to);
  }

  @Override
  public void print(int codePoint) {
    screen.text().print(codePoint);
  }

  @Override
  public void control(int code) {
    screen.text().forgetPrinted();
    switch (code) {
      case 0x07 -> told.add(TerminalListener::bell);
      case '\b' -> screen.moves().backspace();
      case '\t' -> screen.moves().tab(1);
      case '\n', 0x0b, 0x0c -> {
        screen.moves().index();
        if (modes.newLine) {
          screen.moves().carriageReturn();
        }
      }
      case '\r' -> screen.moves().carriageReturn();
      case 0x0e -> screen.charsets(screen.charsets().use(1));
      case 0x0f -> screen.charsets(screen.charsets().use(0));
      default -> {
        // ENQ and the others mean nothing here.
      }
    }
  }

  @Override
  public void escape(int intermediates, int last) {
    screen.text().forgetPrinted();
    switch (intermediates) {
      case 0 -> escape(last);
      case '#' -> size(last);
      case '(', ')', '*', '+' ->
          screen.charsets(screen.charsets().designate(intermediates - '(', last));
      default -> {
        // Sets of 96 characters, and the choice of a coding: it is UTF-8 and stays so.
      }
    }
  }

  private void escape(int last) {
    switch (last) {
      case '6' -> screen.edits().backIndex();
      case '7' -> screen.saveCursor();
      case '8' -> screen.restoreCursor();
      case '9' -> screen.edits().forwardIndex();
      case '=' -> modes.applicationKeypad = true;
      case '>' -> modes.applicationKeypad = false;
      case 'D' -> screen.moves().index();
      case 'E' -> {
        screen.moves().index();
        screen.moves().carriageReturn();
      }
      case 'H' -> screen.moves().setTab();
      case 'M' -> screen.moves().reverseIndex();
      case 'N' -> screen.charsets(screen.charsets().useOnce(2));
      case 'O' -> screen.charsets(screen.charsets().useOnce(3));
      case 'V' -> screen.protect(true, true);
      case 'W' -> screen.protect(false, true);
      case 'Z' -> reports.attributes(0, new Parameters());
      case 'c' -> reset();
      case 'n' -> screen.charsets(screen.charsets().use(2));
      case 'o' -> screen.charsets(screen.charsets().use(3));
      default -> {
        // ST, and what nobody knows.
      }
    }
  }

  private void reset() {
    screen.reset();
    modes.reset();
    palette.reset();
    commands.reset();
  }

  private void size(int last) {
    switch (last) {
      case '3' -> screen.edits().size(Row.Size.TOP_HALF);
      case '4' -> screen.edits().size(Row.Size.BOTTOM_HALF);
      case '5' -> screen.edits().size(Row.Size.NORMAL);
      case '6' -> screen.edits().size(Row.Size.WIDE);
      case '8' -> screen.edits().align();
      default -> {
        // Not known.
      }
    }
  }

  @Override
  public void sequence(int marker, int intermediates, int last, Parameters parameters) {
    if (marker == 0 && intermediates == 0 && last == 'b') {
      // Another one behind it follows no character, and does nothing (ECMA-48, section 8.3.103).
      screen.text().repeat(parameters.times(0, Parameters.HIGHEST));
    }
    if (last != 'm' || marker != 0) {
      screen.text().forgetPrinted();
    }
    if (intermediates != 0) {
      withIntermediate(marker, intermediates, last, parameters);
    } else if (marker == 0) {
      plain(last, parameters);
    } else if (marker == '?') {
      withQuestion(last, parameters);
    } else if (last == 'c') {
      reports.attributes(marker, parameters);
    } else if (marker == '>' && last == 'm') {
      if (parameters.get(0, 4) == 4) {
        modes.modifyOtherKeys = Math.min(2, parameters.get(1, 0));
      }
    } else if (marker == '>' && last == 'n') {
      modes.modifyOtherKeys = parameters.get(0, 4) == 4 ? 0 : modes.modifyOtherKeys;
    } else if (marker == '>' && last == 'q' && parameters.get(0, 0) == 0) {
      reports.version();
    }
  }

  private void plain(int last, Parameters parameters) {
    switch (last) {
      case 'm' -> styles.apply(parameters);
      case 'c' -> reports.attributes(0, parameters);
      case 'n' -> reports.status(false, parameters.get(0, 0));
      case 'h' -> modeSequences.set(false, parameters, true);
      case 'l' -> modeSequences.set(false, parameters, false);
      case 't' -> window(parameters);
      case 'x' -> reports.lineParameters(parameters.get(0, 0));
      default -> edits.plain(last, parameters);
    }
  }

  private void withQuestion(int last, Parameters parameters) {
    switch (last) {
      case 'h' -> modeSequences.set(true, parameters, true);
      case 'l' -> modeSequences.set(true, parameters, false);
      case 'n' -> reports.status(true, parameters.get(0, 0));
      case 'J' -> screen.edits().eraseScreen(parameters.get(0, 0), true);
      case 'K' -> screen.edits().eraseLine(parameters.get(0, 0), true);
      default -> {
        // Not known.
      }
    }
  }

  private void withIntermediate(int marker, int intermediates, int last, Parameters parameters) {
    if (intermediates == '$' && last == 'p' && (marker == 0 || marker == '?')) {
      reports.mode(marker == '?', parameters.get(0, 0));
    } else if (marker != 0) {
      return;
    } else if (intermediates == '!' && last == 'p') {
      screen.softReset();
      modes.softReset();
    } else if (intermediates == ' ' && last == 'q') {
      cursorShape(parameters.get(0, 0));
    } else if (intermediates == '"' && last == 'q') {
      screen.protect(parameters.get(0, 0) == 1, false);
    } else if (intermediates == '*' && last == 'x') {
      areas.extent(parameters.get(0, 0));
    } else if (intermediates == '$') {
      areas.withDollar(last, parameters);
    } else {
      edits.withIntermediate(intermediates, last, parameters);
    }
  }

  private void cursorShape(int code) {
    if (code <= 6) {
      modes.cursorShape = CursorShape.values()[Math.max(0, code - 1) / 2];
      modes.cursorBlinks = code == 0 || code % 2 == 1;
    }
  }

  private void window(Parameters parameters) {
    int what = parameters.get(0, 0);
    if (what == 22 || what == 23) {
      commands.keepTitle(what == 22);
    } else {
      reports.window(what);
    }
  }

  @Override
  public void command(String text) {
    commands.take(text);
  }

  @Override
  public void device(int marker, int intermediates, int last, Parameters parameters, String text) {
    if (marker == 0 && intermediates == '$' && last == 'q') {
      reports.setting(text);
    } else if (marker == 0 && intermediates == '+' && last == 'q') {
      reports.noCapability();
    }
  }
}
