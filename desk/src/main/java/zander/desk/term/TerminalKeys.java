package zander.desk.term;

import javafx.application.Platform;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import zander.core.term.TerminalModes;

/**
 * The keys of a terminal. Ctrl+Shift with C and V copies and pastes, other keys with Ctrl+Shift are
 * left to the window, Shift with a page key scrolls, Ctrl with plus, minus and 0 sets the size of
 * the text; all else belongs to the program.
 */
final class TerminalKeys {
  private final TerminalView view;
  private final TerminalModel model;

  TerminalKeys(TerminalView view, TerminalModel model) {
    this.view = view;
    this.model = model;
    view.addEventHandler(KeyEvent.KEY_PRESSED, this::pressed);
    view.addEventHandler(KeyEvent.KEY_TYPED, this::typed);
  }

  /** A keypad that is locked to numbers types them, whatever the program asked for. */
  private KeyEncoder.Modes modes() {
    boolean numbers = Platform.isKeyLocked(KeyCode.NUM_LOCK).orElse(true);
    TerminalModes asked = model.modes();
    return new KeyEncoder.Modes(
        asked.isApplicationCursor(),
        asked.isApplicationKeypad() && !numbers,
        asked.isBackspaceBs(),
        asked.isNewLine(),
        asked.modifyOtherKeys());
  }

  static KeyEncoder.Held held(KeyEvent event) {
    return new KeyEncoder.Held(event.isShiftDown(), event.isAltDown(), event.isControlDown());
  }

  private void pressed(KeyEvent event) {
    if (event.isControlDown() && event.isShiftDown()) {
      if (event.getCode() == KeyCode.C) {
        view.copy();
        event.consume();
      } else if (event.getCode() == KeyCode.V) {
        view.paste();
        event.consume();
      }
      return;
    }
    if (ofTheView(event)) {
      event.consume();
      return;
    }
    byte[] bytes = KeyEncoder.pressed(event.getCode(), held(event), modes());
    if (bytes.length > 0) {
      view.send(bytes);
      event.consume();
    } else if (event.isControlDown() || (event.isAltDown() && !event.getCode().isModifierKey())) {
      // Keys with Ctrl that mean nothing here must not reach the window's shortcuts either.
      event.consume();
    }
  }

  private boolean ofTheView(KeyEvent event) {
    KeyCode code = event.getCode();
    if (event.isShiftDown() && (code == KeyCode.PAGE_UP || code == KeyCode.PAGE_DOWN)) {
      view.scrollBy((code == KeyCode.PAGE_UP ? 1 : -1) * (model.rows() - 1L));
      return true;
    }
    if (!event.isControlDown() || event.isAltDown()) {
      return false;
    }
    switch (code) {
      case PLUS, EQUALS, ADD -> view.zoom(1);
      case MINUS, SUBTRACT -> view.zoom(-1);
      case DIGIT0, NUMPAD0 -> view.zoom(0);
      default -> {
        return false;
      }
    }
    return true;
  }

  private void typed(KeyEvent event) {
    if (event.isControlDown() && event.isShiftDown()) {
      return;
    }
    byte[] bytes = KeyEncoder.typed(event.getCharacter(), held(event), modes());
    if (bytes.length > 0) {
      view.send(bytes);
    }
    event.consume();
  }
}
