package zander.desk.term;

import java.nio.charset.StandardCharsets;
import java.util.EnumMap;
import java.util.Map;
import javafx.scene.input.KeyCode;

/**
 * The bytes that keys send to a program (ECMA-48 control functions, as the {@code xterm-256color}
 * terminal description has them). A key with Shift, Alt or Ctrl carries them as a parameter; a
 * modifier alone sends nothing.
 */
public final class KeyEncoder {
  /** Keys that send {@code ESC [ letter}, or {@code ESC O letter} in application mode. */
  private static final Map<KeyCode, Character> LETTERS = new EnumMap<>(KeyCode.class);

  /** Keys that send {@code ESC [ number ~}. */
  private static final Map<KeyCode, Integer> NUMBERS = new EnumMap<>(KeyCode.class);

  /** F1 to F4 send {@code ESC O letter}, with modifiers {@code ESC [ 1 ; m letter}. */
  private static final Map<KeyCode, Character> FUNCTIONS = new EnumMap<>(KeyCode.class);

  /** Keys of the keypad, which send {@code ESC O letter} in its application mode. */
  private static final Map<KeyCode, Character> KEYPAD = new EnumMap<>(KeyCode.class);

  static {
    LETTERS.put(KeyCode.UP, 'A');
    LETTERS.put(KeyCode.DOWN, 'B');
    LETTERS.put(KeyCode.RIGHT, 'C');
    LETTERS.put(KeyCode.LEFT, 'D');
    LETTERS.put(KeyCode.HOME, 'H');
    LETTERS.put(KeyCode.END, 'F');
    LETTERS.put(KeyCode.KP_UP, 'A');
    LETTERS.put(KeyCode.KP_DOWN, 'B');
    LETTERS.put(KeyCode.KP_RIGHT, 'C');
    LETTERS.put(KeyCode.KP_LEFT, 'D');
    LETTERS.put(KeyCode.BEGIN, 'E');
    NUMBERS.put(KeyCode.INSERT, 2);
    NUMBERS.put(KeyCode.DELETE, 3);
    NUMBERS.put(KeyCode.PAGE_UP, 5);
    NUMBERS.put(KeyCode.PAGE_DOWN, 6);
    NUMBERS.put(KeyCode.F5, 15);
    NUMBERS.put(KeyCode.F6, 17);
    NUMBERS.put(KeyCode.F7, 18);
    NUMBERS.put(KeyCode.F8, 19);
    NUMBERS.put(KeyCode.F9, 20);
    NUMBERS.put(KeyCode.F10, 21);
    NUMBERS.put(KeyCode.F11, 23);
    NUMBERS.put(KeyCode.F12, 24);
    FUNCTIONS.put(KeyCode.F1, 'P');
    FUNCTIONS.put(KeyCode.F2, 'Q');
    FUNCTIONS.put(KeyCode.F3, 'R');
    FUNCTIONS.put(KeyCode.F4, 'S');
    for (int i = 0; i <= 9; i++) {
      KEYPAD.put(KeyCode.valueOf("NUMPAD" + i), (char) ('p' + i));
    }
    KEYPAD.put(KeyCode.MULTIPLY, 'j');
    KEYPAD.put(KeyCode.ADD, 'k');
    KEYPAD.put(KeyCode.SEPARATOR, 'l');
    KEYPAD.put(KeyCode.SUBTRACT, 'm');
    KEYPAD.put(KeyCode.DECIMAL, 'n');
    KEYPAD.put(KeyCode.DIVIDE, 'o');
  }

  /** F13 to F24 are the first twelve with Shift, as the description has them. */
  private static final int SHIFTED = 12;

  private KeyEncoder() {}

  /** Which modifiers are held. */
  public record Held(boolean shift, boolean alt, boolean control) {
    static final Held NONE = new Held(false, false, false);

    int parameter() {
      return 1 + (shift ? 1 : 0) + (alt ? 2 : 0) + (control ? 4 : 0);
    }

    boolean any() {
      return shift || alt || control;
    }
  }

  /**
   * What the program asked for (DECCKM, DECKPAM, DECBKM, LNM, and modifyOtherKeys).
   *
   * @param cursor application cursor keys
   * @param keypad the application keypad, where the keypad is not locked to numbers
   * @param backspace Backspace sends BS, and DEL with Ctrl
   * @param newLine Enter sends a line feed too
   * @param others 1: keys with modifiers that have no bytes of their own send a number; 2: all do
   */
  public record Modes(
      boolean cursor, boolean keypad, boolean backspace, boolean newLine, int others) {
    static final Modes NONE = new Modes(false, false, false, false, 0);

    static Modes cursor(boolean application) {
      return new Modes(application, false, false, false, 0);
    }
  }

  /**
   * The bytes of a key that types no character by itself; empty when {@link #typed} is to be asked.
   */
  public static byte[] pressed(KeyCode pressed, Held with, Modes modes) {
    boolean high = pressed.compareTo(KeyCode.F13) >= 0 && pressed.compareTo(KeyCode.F24) <= 0;
    KeyCode code = high ? KeyCode.valueOf("F" + (number(pressed) - SHIFTED)) : pressed;
    Held held = high ? new Held(true, with.alt(), with.control()) : with;
    Character keypad = KEYPAD.get(code);
    if (keypad != null && modes.keypad() && !held.any()) {
      return bytes("\033O" + keypad);
    }
    Character letter = LETTERS.get(code);
    if (letter != null) {
      return bytes(
          held.any()
              ? "\033[1;" + held.parameter() + letter
              : (modes.cursor() ? "\033O" : "\033[") + letter);
    }
    Integer number = NUMBERS.get(code);
    if (number != null) {
      return bytes("\033[" + number + (held.any() ? ";" + held.parameter() : "") + "~");
    }
    Character function = FUNCTIONS.get(code);
    if (function != null) {
      return bytes(held.any() ? "\033[1;" + held.parameter() + function : "\033O" + function);
    }
    byte[] numbered = numbered(code, held, modes.others());
    if (numbered.length > 0) {
      return numbered;
    }
    return switch (code) {
      case ENTER -> bytes((held.alt() ? "\033" : "") + (modes.newLine() ? "\r\n" : "\r"));
      case TAB -> bytes(held.shift() ? "\033[Z" : "\t");
      case ESCAPE -> bytes("\033");
      case BACK_SPACE ->
          bytes((held.alt() ? "\033" : "") + (held.control() != modes.backspace() ? "\b" : "\177"));
      case SPACE -> held.control() ? new byte[] {0} : new byte[0];
      default -> held.control() ? control(code, held) : new byte[0];
    };
  }

  /**
   * {@code CSI 27 ; modifiers ; code ~}: in the first degree for keys that could not be told from
   * others, in the second for all with Ctrl or Alt, and those that type nothing with Shift.
   */
  private static byte[] numbered(KeyCode code, Held held, int others) {
    int character = character(code, held.shift());
    boolean typesNothing =
        code == KeyCode.ENTER
            || code == KeyCode.TAB
            || code == KeyCode.ESCAPE
            || code == KeyCode.BACK_SPACE;
    boolean shiftAlone = !held.control() && !held.alt();
    if (others == 0 || !held.any() || character < 0 || (shiftAlone && !typesNothing)) {
      return new byte[0];
    }
    boolean ownBytes =
        (code == KeyCode.TAB && shiftAlone)
            || code == KeyCode.BACK_SPACE
            || (held.alt() && !held.control())
            || (held.control() && !held.shift() && (code == KeyCode.SPACE || known(code)));
    if ((others == 1 && ownBytes) || (code == KeyCode.TAB && shiftAlone)) {
      return new byte[0];
    }
    return bytes("\033[27;" + held.parameter() + ";" + character + "~");
  }

  private static boolean known(KeyCode code) {
    return control(code, Held.NONE).length > 0;
  }

  /** What the key types by itself, or has as its code; -1 for a key that types nothing. */
  private static int character(KeyCode code, boolean shift) {
    return switch (code) {
      case ENTER -> '\r';
      case TAB -> '\t';
      case ESCAPE -> 27;
      case BACK_SPACE -> 127;
      case SPACE -> ' ';
      default -> {
        String typed = code.getChar();
        boolean one = typed.length() == 1 && typed.charAt(0) > ' ' && typed.charAt(0) < 127;
        yield !one
            ? -1
            : shift ? typed.charAt(0) : typed.toLowerCase(java.util.Locale.ROOT).charAt(0);
      }
    };
  }

  private static int number(KeyCode function) {
    return Integer.parseInt(function.name().substring(1));
  }

  /**
   * Ctrl with a letter or one of {@code @ [ \ ] ^ _} sends the control character of it, and with a
   * digit that of the key which had it on the VT220.
   */
  private static byte[] control(KeyCode code, Held held) {
    int value = -1;
    if (code.isLetterKey()) {
      value = code.getChar().charAt(0) & 0x1f;
    } else {
      value =
          switch (code) {
            case DIGIT2, AT -> 0;
            case DIGIT3, OPEN_BRACKET -> 27;
            case DIGIT4, BACK_SLASH -> 28;
            case DIGIT5, CLOSE_BRACKET -> 29;
            case DIGIT6, CIRCUMFLEX -> 30;
            case DIGIT7, MINUS, UNDERSCORE, SLASH -> 31;
            case DIGIT8 -> 127;
            default -> -1;
          };
    }
    if (value < 0) {
      return new byte[0];
    }
    return held.alt() ? new byte[] {27, (byte) value} : new byte[] {(byte) value};
  }

  /** The bytes of a typed character: UTF-8, after an ESC with Alt. Control characters: none. */
  public static byte[] typed(String character, Held held, Modes modes) {
    if (modes.others() == 2 && held.alt() != held.control()) {
      // It was sent as a number when the key was pressed.
      return new byte[0];
    }
    if (character.isEmpty() || character.charAt(0) < ' ' || character.charAt(0) == 127) {
      return new byte[0];
    }
    if (held.control() && !held.alt()) {
      return new byte[0];
    }
    return bytes((held.alt() && !held.control() ? "\033" : "") + character);
  }

  private static byte[] bytes(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }
}
