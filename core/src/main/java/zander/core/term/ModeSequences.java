package zander.core.term;

import zander.core.term.TerminalModes.Mouse;
import zander.core.term.TerminalModes.MouseForm;
import zander.core.term.parse.Parameters;
import zander.core.term.screen.Screen;

/**
 * Sets modes, resets them, and tells whether they are set (SM, RM, DECRQM: VT510's manual, chapter
 * 5; those from 1000 on as {@code xterm-256color} programs use them). What would give the window
 * another size, and mouse places as UTF-8, are known and refused.
 */
final class ModeSequences {
  /** Answers of DECRQM. */
  private static final int UNKNOWN = 0;

  private static final int SET = 1;
  private static final int RESET = 2;
  private static final int NEVER = 4;

  private final Screen screen;
  private final TerminalModes modes;

  ModeSequences(Screen screen, TerminalModes modes) {
    this.screen = screen;
    this.modes = modes;
  }

  void set(boolean isPrivate, Parameters parameters, boolean on) {
    for (int i = 0; i < parameters.count(); i++) {
      int mode = parameters.get(i, 0);
      if (isPrivate) {
        setPrivate(mode, on);
      } else if (mode == 4) {
        screen.insert(on);
      } else if (mode == 6) {
        screen.erasesAll(on);
      } else if (mode == 20) {
        modes.newLine = on;
      }
    }
  }

  private void setPrivate(int mode, boolean on) {
    switch (mode) {
      case 1 -> modes.applicationCursor = on;
      case 5 -> {
        modes.reverseScreen = on;
        screen.redraw();
      }
      case 6 -> screen.origin(on);
      case 7 -> screen.autoWrap(on);
      case 9 -> modes.mouse = on ? Mouse.PRESSES : Mouse.NONE;
      case 12 -> modes.cursorBlinks = on;
      case 25 -> modes.cursorVisible = on;
      case 45 -> screen.backWrap(on);
      case 66 -> modes.applicationKeypad = on;
      case 67 -> modes.backspaceSendsBs = on;
      case 69 -> screen.sideMargins(on);
      case 47, 1047 -> screen.alternate(on, mode == 1047);
      case 1048 -> save(on);
      case 1049 -> {
        if (on) {
          save(true);
          screen.alternate(true, true);
        } else {
          boolean was = screen.isAlternate();
          screen.alternate(false, false);
          if (was) {
            save(false);
          }
        }
      }
      case 1000 -> modes.mouse = on ? Mouse.BUTTONS : Mouse.NONE;
      case 1002 -> modes.mouse = on ? Mouse.DRAGS : Mouse.NONE;
      case 1003 -> modes.mouse = on ? Mouse.MOVES : Mouse.NONE;
      case 1004 -> modes.focusReports = on;
      case 1006 -> modes.mouseForm = on ? MouseForm.CELLS : MouseForm.BYTES;
      case 1007 -> modes.wheelMovesCursor = on;
      case 1016 -> modes.mouseForm = on ? MouseForm.PIXELS : MouseForm.BYTES;
      case 2004 -> modes.bracketedPaste = on;
      case 2026 -> modes.heldSince = on ? Math.max(1, System.nanoTime()) : 0;
      default -> {
        // Not known, or refused: it stays as it is, and DECRQM says so.
      }
    }
  }

  private void save(boolean on) {
    if (on) {
      screen.saveCursor();
    } else {
      screen.restoreCursor();
    }
  }

  /** What DECRQM is answered for a mode. */
  int state(boolean isPrivate, int mode) {
    if (!isPrivate) {
      return switch (mode) {
        case 4 -> is(screen.isInsert());
        case 6 -> is(screen.isErasingAll());
        case 20 -> is(modes.newLine);
        default -> UNKNOWN;
      };
    }
    return switch (mode) {
      case 1 -> is(modes.applicationCursor);
      case 5 -> is(modes.reverseScreen);
      case 6 -> is(screen.isOrigin());
      case 7 -> is(screen.isAutoWrap());
      case 9 -> is(modes.mouse == Mouse.PRESSES);
      case 12 -> is(modes.cursorBlinks);
      case 25 -> is(modes.cursorVisible);
      case 45 -> is(screen.isBackWrap());
      case 66 -> is(modes.applicationKeypad);
      case 67 -> is(modes.backspaceSendsBs);
      case 69 -> is(screen.hasSideMargins());
      case 47, 1047, 1049 -> is(screen.isAlternate());
      case 1000 -> is(modes.mouse == Mouse.BUTTONS);
      case 1002 -> is(modes.mouse == Mouse.DRAGS);
      case 1003 -> is(modes.mouse == Mouse.MOVES);
      case 1004 -> is(modes.focusReports);
      case 1006 -> is(modes.mouseForm == MouseForm.CELLS);
      case 1007 -> is(modes.wheelMovesCursor);
      case 1016 -> is(modes.mouseForm == MouseForm.PIXELS);
      case 2004 -> is(modes.bracketedPaste);
      case 2026 -> is(modes.heldSince != 0);
      case 3, 40, 1005, 1015 -> NEVER;
      default -> UNKNOWN;
    };
  }

  private static int is(boolean set) {
    return set ? SET : RESET;
  }
}
