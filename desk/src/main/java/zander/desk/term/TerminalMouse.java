package zander.desk.term;

import java.util.function.Consumer;
import javafx.scene.Cursor;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import org.jspecify.annotations.Nullable;
import zander.core.term.TerminalModes;
import zander.core.term.TerminalPicture;
import zander.core.term.screen.Row;

/**
 * The mouse of a terminal: marks text, by letter, word and line, with Alt in a block; goes to what
 * is pressed with Ctrl; and goes to the program, where that asked for it, unless Shift is held.
 */
final class TerminalMouse {
  private static final int WHEEL_UP = 64;
  private static final int WHEEL_DOWN = 65;
  private static final int WHEEL_ROWS = 3;

  private final TerminalView view;
  private final TerminalModel model;
  private final Selection selection;
  private final Consumer<TextLink> following;
  private int lastColumn = -1;
  private int lastRow = -1;

  TerminalMouse(
      TerminalView view, TerminalModel model, Selection selection, Consumer<TextLink> following) {
    this.view = view;
    this.model = model;
    this.selection = selection;
    this.following = following;
    view.addEventHandler(MouseEvent.MOUSE_PRESSED, this::pressed);
    view.addEventHandler(MouseEvent.MOUSE_DRAGGED, this::dragged);
    view.addEventHandler(MouseEvent.MOUSE_RELEASED, this::released);
    view.addEventHandler(MouseEvent.MOUSE_MOVED, this::moved);
    view.addEventHandler(ScrollEvent.SCROLL, this::scrolled);
  }

  private void pressed(MouseEvent event) {
    view.requestFocus();
    event.consume();
    if (report(MouseReport.Kind.PRESS, button(event), event)) {
      return;
    }
    if (event.getButton() == MouseButton.MIDDLE) {
      view.paste();
    } else if (event.getButton() == MouseButton.PRIMARY && view.picture() != null) {
      if (event.isControlDown()) {
        TextLink link = link(event);
        if (link != null) {
          following.accept(link);
        }
      } else {
        mark(event);
      }
    }
  }

  private void mark(MouseEvent event) {
    long row = rowAt(event);
    switch (Math.min(event.getClickCount(), 3)) {
      case 2 -> {
        Row found = view.row(row);
        if (found != null) {
          selection.selectWord(row, cellAt(event), found);
        }
      }
      case 3 ->
          model
              .terminal()
              .look(
                  screen -> {
                    selection.selectLine(row, screen::rowOf);
                    return null;
                  });
      default -> selection.start(row, edgeAt(event), event.isAltDown());
    }
    view.repaint();
  }

  private void dragged(MouseEvent event) {
    if (report(MouseReport.Kind.MOVE, button(event), event)) {
      return;
    }
    if (event.getButton() == MouseButton.PRIMARY && view.picture() != null) {
      if (event.getY() < 0) {
        view.scrollBy(1);
      } else if (event.getY() > view.getHeight()) {
        view.scrollBy(-1);
      }
      selection.extend(rowAt(event), edgeAt(event));
      view.repaint();
    }
  }

  private void released(MouseEvent event) {
    report(MouseReport.Kind.RELEASE, button(event), event);
  }

  private void moved(MouseEvent event) {
    boolean told = report(MouseReport.Kind.MOVE, MouseReport.NO_BUTTON, event);
    boolean leads = !told && event.isControlDown() && link(event) != null;
    view.setCursor(leads ? Cursor.HAND : told ? Cursor.DEFAULT : Cursor.TEXT);
  }

  private @Nullable TextLink link(MouseEvent event) {
    Row row = view.row(rowAt(event));
    return row == null ? null : TextLink.at(row, cellAt(event));
  }

  private static int button(MouseEvent event) {
    return switch (event.getButton()) {
      case PRIMARY -> 0;
      case MIDDLE -> 1;
      case SECONDARY -> 2;
      default -> MouseReport.NO_BUTTON;
    };
  }

  /** Tells the program; whether it wants the mouse at all. */
  private boolean report(MouseReport.Kind kind, int button, MouseEvent event) {
    TerminalModes modes = model.modes();
    if (modes.mouse() == TerminalModes.Mouse.NONE || event.isShiftDown() || !isOnScreen()) {
      return false;
    }
    int column = cellAt(event);
    int row = lineAt(event.getY());
    boolean pixels = modes.mouseForm() == TerminalModes.MouseForm.PIXELS;
    if (kind == MouseReport.Kind.MOVE && column == lastColumn && row == lastRow && !pixels) {
      return true;
    }
    lastColumn = column;
    lastRow = row;
    KeyEncoder.Held held = new KeyEncoder.Held(false, event.isAltDown(), event.isControlDown());
    model.type(made(kind, button, event.getX(), event.getY()).bytes(modes, held));
    return true;
  }

  private MouseReport made(MouseReport.Kind kind, int button, double x, double y) {
    return new MouseReport(
        kind,
        button,
        cellAt(x),
        lineAt(y),
        Math.max(0, (int) (x - RowPainter.PADDING)),
        Math.max(0, (int) (y - RowPainter.PADDING)));
  }

  private boolean isOnScreen() {
    TerminalPicture picture = view.picture();
    return picture != null && picture.isScreen();
  }

  private int lineAt(double y) {
    int line = (int) Math.floor((y - RowPainter.PADDING) / view.painter().cellHeight());
    return Math.max(0, Math.min(model.rows() - 1, line));
  }

  private long rowAt(MouseEvent event) {
    TerminalPicture picture = view.picture();
    return (picture == null ? 0 : picture.firstRow()) + lineAt(event.getY());
  }

  private int cellAt(MouseEvent event) {
    return cellAt(event.getX());
  }

  private int cellAt(double x) {
    int column = (int) Math.floor((x - RowPainter.PADDING) / view.painter().cellWidth());
    return Math.max(0, Math.min(model.columns() - 1, column));
  }

  /** The edge between cells that is nearest. */
  private int edgeAt(MouseEvent event) {
    int column = (int) Math.round((event.getX() - RowPainter.PADDING) / view.painter().cellWidth());
    return Math.max(0, Math.min(model.columns(), column));
  }

  private void scrolled(ScrollEvent event) {
    event.consume();
    int lines = (int) Math.signum(event.getDeltaY()) * WHEEL_ROWS;
    TerminalModes modes = model.modes();
    KeyEncoder.Held held = new KeyEncoder.Held(false, event.isAltDown(), event.isControlDown());
    if (lines == 0) {
      return;
    }
    if (modes.mouse() != TerminalModes.Mouse.NONE && !event.isShiftDown() && isOnScreen()) {
      int wheel = lines > 0 ? WHEEL_UP : WHEEL_DOWN;
      model.type(
          made(MouseReport.Kind.PRESS, wheel, event.getX(), event.getY()).bytes(modes, held));
    } else if (model.isFullScreen()) {
      // A full-screen program has no history; the wheel moves its cursor.
      if (modes.isWheelForCursor()) {
        KeyCode code = lines > 0 ? KeyCode.UP : KeyCode.DOWN;
        byte[] key =
            KeyEncoder.pressed(
                code, KeyEncoder.Held.NONE, KeyEncoder.Modes.cursor(modes.isApplicationCursor()));
        for (int i = 0; i < Math.abs(lines); i++) {
          model.type(key);
        }
      }
    } else {
      view.scrollBy(lines);
    }
  }
}
