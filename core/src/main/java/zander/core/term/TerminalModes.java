package zander.core.term;

/**
 * What the program asked of the keys, the mouse and the view. Written under the terminal's lock;
 * each field may be read by any thread.
 */
public final class TerminalModes {
  /** Which moves of the mouse the program is told of. */
  public enum Mouse {
    NONE,
    /** Presses alone (mode 9). */
    PRESSES,
    /** Presses and releases (mode 1000). */
    BUTTONS,
    /** And moves while a button is held (mode 1002). */
    DRAGS,
    /** And all moves (mode 1003). */
    MOVES
  }

  /** How places of the mouse are written. */
  public enum MouseForm {
    /** A byte each, as far as column and row 223. */
    BYTES,
    /** Decimal numbers of cells (mode 1006). */
    CELLS,
    /** Decimal numbers of pixels (mode 1016). */
    PIXELS
  }

  /** What the cursor looks like (DECSCUSR). */
  public enum CursorShape {
    BLOCK,
    UNDERLINE,
    BAR
  }

  volatile boolean applicationCursor;
  volatile boolean applicationKeypad;
  volatile boolean backspaceSendsBs;
  volatile boolean newLine;
  volatile boolean bracketedPaste;
  volatile boolean focusReports;
  volatile boolean wheelMovesCursor = true;
  volatile boolean reverseScreen;
  volatile boolean cursorVisible = true;
  volatile boolean cursorBlinks;
  volatile CursorShape cursorShape = CursorShape.BLOCK;
  volatile Mouse mouse = Mouse.NONE;
  volatile MouseForm mouseForm = MouseForm.BYTES;
  volatile int modifyOtherKeys;

  /** Since when the program asks for nothing to be drawn (mode 2026), by nanoTime; 0 for not. */
  volatile long heldSince;

  void reset() {
    softReset();
    newLine = false;
    bracketedPaste = false;
    focusReports = false;
    wheelMovesCursor = true;
    reverseScreen = false;
    cursorBlinks = false;
    cursorShape = CursorShape.BLOCK;
    mouse = Mouse.NONE;
    mouseForm = MouseForm.BYTES;
    modifyOtherKeys = 0;
    heldSince = 0;
  }

  void softReset() {
    applicationCursor = false;
    applicationKeypad = false;
    backspaceSendsBs = false;
    cursorVisible = true;
  }

  public boolean isApplicationCursor() {
    return applicationCursor;
  }

  public boolean isApplicationKeypad() {
    return applicationKeypad;
  }

  /** Whether Backspace sends BS, and with Ctrl DEL (DECBKM); else it is the other way round. */
  public boolean isBackspaceBs() {
    return backspaceSendsBs;
  }

  /** Whether Enter sends a line feed too (LNM). */
  public boolean isNewLine() {
    return newLine;
  }

  public boolean isBracketedPaste() {
    return bracketedPaste;
  }

  public boolean isFocusReported() {
    return focusReports;
  }

  /** Whether the wheel moves the cursor of a program that has the alternate screen. */
  public boolean isWheelForCursor() {
    return wheelMovesCursor;
  }

  public boolean isReverseScreen() {
    return reverseScreen;
  }

  public boolean isCursorVisible() {
    return cursorVisible;
  }

  public boolean isCursorBlinking() {
    return cursorBlinks;
  }

  public CursorShape cursorShape() {
    return cursorShape;
  }

  public Mouse mouse() {
    return mouse;
  }

  public MouseForm mouseForm() {
    return mouseForm;
  }

  /** 0 to 2, as {@code CSI > 4 ; n m} sets it. */
  public int modifyOtherKeys() {
    return modifyOtherKeys;
  }

  /** Since when nothing is to be drawn, by {@link System#nanoTime}; 0 when it is. */
  public long heldSince() {
    return heldSince;
  }
}
