package zander.desk.term;

import java.nio.charset.StandardCharsets;
import zander.core.term.TerminalModes;
import zander.core.term.TerminalModes.Mouse;
import zander.core.term.TerminalModes.MouseForm;

/**
 * What a program is told of the mouse, in the form that it asked for (modes 9, 1000, 1002, 1003
 * with 1006 or 1016). Nothing where it did not ask, or where a place is too far for the form.
 *
 * @param button 0 to 2 for the left, the middle and the right one, 64 to 67 for the wheel up, down,
 *     left and right, {@link #NO_BUTTON} for none
 * @param column from 0
 * @param row from 0
 * @param x in pixels from the left of the first cell
 * @param y in pixels from the top of the first cell
 */
record MouseReport(Kind kind, int button, int column, int row, int x, int y) {
  static final int NO_BUTTON = 3;
  private static final int WHEEL = 64;
  private static final int MOVING = 32;
  private static final int FARTHEST = 223;

  enum Kind {
    PRESS,
    RELEASE,
    MOVE
  }

  /** The bytes of it; empty for nothing. */
  byte[] bytes(TerminalModes modes, KeyEncoder.Held held) {
    if (!isWanted(modes.mouse())) {
      return new byte[0];
    }
    int code = button + (kind == Kind.MOVE ? MOVING : 0);
    if (modes.mouse() != Mouse.PRESSES) {
      code += (held.shift() ? 4 : 0) + (held.alt() ? 8 : 0) + (held.control() ? 16 : 0);
    }
    if (modes.mouseForm() == MouseForm.BYTES) {
      return inBytes(code);
    }
    boolean pixels = modes.mouseForm() == MouseForm.PIXELS;
    String text =
        "\033[<%d;%d;%d%c"
            .formatted(
                code,
                (pixels ? x : column) + 1,
                (pixels ? y : row) + 1,
                kind == Kind.RELEASE ? 'm' : 'M');
    return text.getBytes(StandardCharsets.US_ASCII);
  }

  private boolean isWanted(Mouse wanted) {
    return switch (wanted) {
      case NONE -> false;
      case PRESSES -> kind == Kind.PRESS && button < WHEEL;
      case BUTTONS -> kind != Kind.MOVE;
      case DRAGS -> kind != Kind.MOVE || button != NO_BUTTON;
      case MOVES -> true;
    };
  }

  private byte[] inBytes(int code) {
    if (column >= FARTHEST || row >= FARTHEST) {
      return new byte[0];
    }
    int shown = kind == Kind.RELEASE ? code | NO_BUTTON : code;
    return new byte[] {27, '[', 'M', (byte) (32 + shown), (byte) (33 + column), (byte) (33 + row)};
  }
}
