package zander.core.term;

import java.nio.charset.StandardCharsets;
import zander.core.term.parse.Parameters;
import zander.core.term.screen.CellStyle;
import zander.core.term.screen.Screen;

/**
 * What the terminal answers when it is asked (DA, DSR, DECRQM, DECRQSS, XTVERSION; VT510's manual,
 * chapter 5). An answer has fixed text and numbers: never a text that the program sent before,
 * which a shell could take for a command.
 */
final class Reports {
  /** Of one call's answers; more are let go of, as nobody asks so much. */
  private static final int MOST_BYTES = 16 * 1024;

  private static final String CSI = "\033[";
  private static final String DCS = "\033P";
  private static final String END = "\033\\";

  /** A VT420 with selective erase, side margins and colours. */
  private static final String ATTRIBUTES = CSI + "?64;6;21;22c";

  private final Screen screen;
  private final ModeSequences modeStates;
  private final TerminalModes modes;
  private final StringBuilder waiting = new StringBuilder();

  Reports(Screen screen, TerminalModes modes, ModeSequences modeStates) {
    this.screen = screen;
    this.modes = modes;
    this.modeStates = modeStates;
  }

  /** Takes out what there is to send. */
  byte[] takeAll() {
    byte[] all = waiting.toString().getBytes(StandardCharsets.US_ASCII);
    waiting.setLength(0);
    return all;
  }

  boolean isEmpty() {
    return waiting.length() == 0;
  }

  void answer(String text) {
    if (waiting.length() + text.length() <= MOST_BYTES) {
      waiting.append(text);
    }
  }

  /** DA1 to DA3. */
  void attributes(int marker, Parameters parameters) {
    if (parameters.get(0, 0) != 0) {
      return;
    }
    switch (marker) {
      case 0 -> answer(ATTRIBUTES);
      case '>' -> answer(CSI + ">41;400;0c");
      case '=' -> answer(DCS + "!|00000000" + END);
      default -> {
        // Nobody asks so.
      }
    }
  }

  /** DSR. */
  void status(boolean isPrivate, int what) {
    String place = screen.reportedY() + 1 + ";" + (screen.reportedX() + 1);
    if (!isPrivate) {
      switch (what) {
        case 5 -> answer(CSI + "0n");
        case 6 -> answer(CSI + place + "R");
        default -> {
          // Not known.
        }
      }
      return;
    }
    switch (what) {
      case 6 -> answer(CSI + "?" + place + ";1R");
      // No printer; keys of the user are locked; a North American keyboard; no locator.
      case 15 -> answer(CSI + "?13n");
      case 25 -> answer(CSI + "?21n");
      case 26 -> answer(CSI + "?27;1;0;0n");
      case 53, 55 -> answer(CSI + "?53n");
      default -> {
        // Not known.
      }
    }
  }

  /** DECRQM. */
  void mode(boolean isPrivate, int mode) {
    String mark = isPrivate ? "?" : "";
    answer(CSI + mark + mode + ";" + modeStates.state(isPrivate, mode) + "$y");
  }

  /** XTVERSION: the terminal's own name. */
  void version() {
    answer(DCS + ">|Zander" + END);
  }

  /** DECREQTPARM: no parity, eight bits, a speed that nobody looks at. */
  void lineParameters(int asked) {
    if (asked <= 1) {
      answer(CSI + (asked + 2) + ";1;1;128;128;1;0x");
    }
  }

  /** The size of the text in cells; other questions of the window's are refused. */
  void window(int what) {
    if (what == 18) {
      answer(CSI + "8;" + screen.rows() + ";" + screen.columns() + "t");
    }
  }

  /** DECRQSS: how the named setting is set. */
  void setting(String asked) {
    String value =
        switch (asked) {
          case "m" -> style() + "m";
          case "r" -> screen.rowMarginsText() + "r";
          case "s" -> screen.columnMarginsText() + "s";
          case " q" -> cursorShape() + " q";
          case "\"q" -> (CellStyle.has(screen.style(), CellStyle.PROTECTED) ? 1 : 0) + "\"q";
          case "*x" -> (screen.isRestylingText() ? 1 : 2) + "*x";
          case "\"p" -> "64;1\"p";
          default -> "";
        };
    answer(DCS + (value.isEmpty() ? "0$r" : "1$r" + value) + END);
  }

  /** A colour of the palette, or of OSC 10 to 12. */
  void colour(String which, int rgb) {
    answer(
        String.format(
            "\033]%s;rgb:%2$02x%2$02x/%3$02x%3$02x/%4$02x%4$02x\033\\",
            which, (rgb >> 16) & 0xff, (rgb >> 8) & 0xff, rgb & 0xff));
  }

  /** A question for the terminal description: there is a better place to look. */
  void noCapability() {
    answer(DCS + "0+r" + END);
  }

  private int cursorShape() {
    return modes.cursorShape.ordinal() * 2 + (modes.cursorBlinks ? 1 : 2);
  }

  private String style() {
    long style = screen.style();
    StringBuilder text = new StringBuilder("0");
    long[] attributes = {
      CellStyle.BOLD,
      CellStyle.FAINT,
      CellStyle.ITALIC,
      CellStyle.BLINK,
      CellStyle.REVERSE,
      CellStyle.HIDDEN,
      CellStyle.STRIKE,
      CellStyle.OVERLINE
    };
    int[] codes = {1, 2, 3, 5, 7, 8, 9, 53};
    for (int i = 0; i < codes.length; i++) {
      if (CellStyle.has(style, attributes[i])) {
        text.append(';').append(codes[i]);
      }
    }
    if (CellStyle.underline(style) != CellStyle.NONE) {
      text.append(";4:").append(CellStyle.underline(style));
    }
    colour(text, 38, CellStyle.foreground(style));
    colour(text, 48, CellStyle.background(style));
    return text.toString();
  }

  private static void colour(StringBuilder text, int code, int colour) {
    int value = CellStyle.value(colour);
    if (CellStyle.isIndexed(colour)) {
      text.append(';').append(code).append(":5:").append(value);
    } else if (CellStyle.isRgb(colour)) {
      text.append(';').append(code).append(":2::").append(value >> 16);
      text.append(':').append((value >> 8) & 0xff).append(':').append(value & 0xff);
    }
  }
}
