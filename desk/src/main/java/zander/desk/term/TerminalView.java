package zander.desk.term;

import com.techsenger.jeditermfx.core.TextStyle;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.geometry.VPos;
import javafx.scene.AccessibleRole;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Region;
import javafx.scene.text.Font;
import javafx.scene.text.FontWeight;
import javafx.scene.text.Text;

/**
 * Draws a terminal on a canvas and sends it keys. Drawn at most once a frame, and only when
 * something changed. Ctrl+Shift with C and V copies and pastes, other keys with Ctrl+Shift are left
 * to the window, all else belongs to the program in the terminal.
 */
public final class TerminalView extends Region {
  private static final double SIZE = 13;
  private static final double PADDING = 8;
  private static final String FAMILY = "JetBrains Mono";

  /** So many frames without a change, and the view waits to be told of the next. */
  private static final int QUIET_FRAMES = 30;

  private final TerminalModel model;
  private final Consumer<String> pasting;
  private final Canvas canvas = new Canvas();
  private final Font plain = Font.font(FAMILY, SIZE);
  private final Font bold = Font.font(FAMILY, FontWeight.BOLD, SIZE);
  private final double cellWidth;
  private final double cellHeight;
  private final Selection selection = new Selection();
  private final AnimationTimer timer;
  private final AtomicBoolean asleep = new AtomicBoolean();
  private int quietFrames;
  private long drawn = -1;
  private int scrolledUp;
  private long historyDrawn;
  private boolean changed = true;

  /**
   * @param pasting told what is to be pasted, as it is on the clipboard
   */
  public TerminalView(TerminalModel model, Consumer<String> pasting) {
    this.model = model;
    this.pasting = pasting;
    Text probe = new Text("M".repeat(100));
    probe.setFont(plain);
    cellWidth = probe.getLayoutBounds().getWidth() / 100;
    cellHeight = Math.ceil(probe.getLayoutBounds().getHeight() * 1.08);
    getChildren().add(canvas);
    getStyleClass().add("terminal");
    setAccessibleRole(AccessibleRole.TEXT_AREA);
    setAccessibleText("Shell");
    setFocusTraversable(true);
    setCursor(Cursor.TEXT);
    setMinSize(0, 0);
    addEventHandler(KeyEvent.KEY_PRESSED, this::pressed);
    addEventHandler(KeyEvent.KEY_TYPED, this::typed);
    addEventHandler(MouseEvent.MOUSE_PRESSED, this::mousePressed);
    addEventHandler(MouseEvent.MOUSE_DRAGGED, this::mouseDragged);
    addEventHandler(ScrollEvent.SCROLL, this::scrolled);
    focusedProperty().addListener((observed, old, now) -> redraw());
    timer =
        new AnimationTimer() {
          @Override
          public void handle(long now) {
            if (changed || drawn != TerminalView.this.model.version()) {
              draw();
              quietFrames = 0;
            } else if (++quietFrames > QUIET_FRAMES) {
              rest();
            }
          }
        };
    sceneProperty()
        .addListener(
            (observed, old, now) -> {
              timer.stop();
              asleep.set(false);
              if (now != null) {
                timer.start();
              }
            });
    model.onChange(
        () -> {
          if (asleep.compareAndSet(true, false)) {
            Platform.runLater(this::lookAgain);
          }
        });
  }

  /** A timer that runs has the window drawn at each frame, whether anything changed or not. */
  private void rest() {
    timer.stop();
    asleep.set(true);
    if (drawn != model.version()) {
      redraw();
    }
  }

  private void lookAgain() {
    if (getScene() != null) {
      timer.start();
    }
  }

  private void redraw() {
    changed = true;
    if (asleep.compareAndSet(true, false)) {
      lookAgain();
    }
  }

  @Override
  protected void layoutChildren() {
    canvas.setWidth(getWidth());
    canvas.setHeight(getHeight());
    int columns = (int) ((getWidth() - 2 * PADDING) / cellWidth);
    int rows = (int) ((getHeight() - 2 * PADDING) / cellHeight);
    if (columns >= 2 && rows >= 2) {
      model.resize(columns, rows);
    }
    redraw();
  }

  // Keys.

  /** A keypad that is locked to numbers types them, whatever the program asked for. */
  private KeyEncoder.Modes modes() {
    boolean numbers = Platform.isKeyLocked(KeyCode.NUM_LOCK).orElse(true);
    KeyEncoder.Modes asked = model.modes();
    return new KeyEncoder.Modes(asked.cursor(), asked.keypad() && !numbers);
  }

  private static KeyEncoder.Held held(KeyEvent event) {
    return new KeyEncoder.Held(event.isShiftDown(), event.isAltDown(), event.isControlDown());
  }

  private void pressed(KeyEvent event) {
    if (event.isControlDown() && event.isShiftDown()) {
      if (event.getCode() == KeyCode.C) {
        copy();
        event.consume();
      } else if (event.getCode() == KeyCode.V) {
        paste();
        event.consume();
      }
      return;
    }
    if (event.isShiftDown() && pageScroll(event.getCode())) {
      event.consume();
      return;
    }
    byte[] bytes = KeyEncoder.pressed(event.getCode(), held(event), modes());
    if (bytes.length > 0) {
      send(bytes);
      event.consume();
    } else if (event.isControlDown() || (event.isAltDown() && !event.getCode().isModifierKey())) {
      // Keys with Ctrl that mean nothing here must not reach the window's shortcuts either.
      event.consume();
    }
  }

  private boolean pageScroll(KeyCode code) {
    if (code == KeyCode.PAGE_UP || code == KeyCode.PAGE_DOWN) {
      scrollBy((code == KeyCode.PAGE_UP ? 1 : -1) * (model.rows() - 1));
      return true;
    }
    return false;
  }

  private void typed(KeyEvent event) {
    if (event.isControlDown() && event.isShiftDown()) {
      return;
    }
    byte[] bytes = KeyEncoder.typed(event.getCharacter(), held(event));
    if (bytes.length > 0) {
      send(bytes);
    }
    event.consume();
  }

  private void send(byte[] bytes) {
    scrolledUp = 0;
    selection.clear();
    redraw();
    model.type(bytes);
  }

  // Copy and paste.

  /** Puts the selected text on the clipboard. */
  public void copy() {
    String text = selection.text(model);
    if (!text.isEmpty()) {
      ClipboardContent content = new ClipboardContent();
      content.putString(text);
      Clipboard.getSystemClipboard().setContent(content);
    }
  }

  public void paste() {
    String text = Clipboard.getSystemClipboard().getString();
    if (text != null && !text.isEmpty()) {
      scrolledUp = 0;
      pasting.accept(text);
    }
  }

  // The mouse.

  private void mousePressed(MouseEvent event) {
    requestFocus();
    if (event.getButton() == MouseButton.PRIMARY) {
      if (event.getClickCount() == 2) {
        selection.selectWord(model, rowAt(event), columnAt(event));
      } else if (event.getClickCount() == 3) {
        selection.selectRow(rowAt(event), model.columns());
      } else {
        selection.start(rowAt(event), columnAt(event));
      }
      redraw();
    } else if (event.getButton() == MouseButton.MIDDLE) {
      paste();
    }
    event.consume();
  }

  private void mouseDragged(MouseEvent event) {
    if (event.getButton() == MouseButton.PRIMARY) {
      selection.extend(rowAt(event), columnAt(event));
      redraw();
    }
  }

  private int rowAt(MouseEvent event) {
    int row = (int) Math.floor((event.getY() - PADDING) / cellHeight) - scrolledUp;
    return Math.max(-model.historyRows(), Math.min(model.rows() - 1, row));
  }

  private int columnAt(MouseEvent event) {
    int column = (int) Math.round((event.getX() - PADDING) / cellWidth);
    return Math.max(0, Math.min(model.columns(), column));
  }

  private void scrolled(ScrollEvent event) {
    int lines = (int) Math.signum(event.getDeltaY()) * 3;
    if (model.isFullScreen()) {
      // A full-screen program has no history; the wheel moves its cursor.
      KeyCode code = lines > 0 ? KeyCode.UP : KeyCode.DOWN;
      for (int i = 0; i < Math.abs(lines); i++) {
        model.type(KeyEncoder.pressed(code, KeyEncoder.Held.NONE, modes()));
      }
    } else {
      scrollBy(lines);
    }
    event.consume();
  }

  private void scrollBy(int lines) {
    scrolledUp = Math.max(0, Math.min(model.historyRows(), scrolledUp + lines));
    redraw();
  }

  // Drawing.

  private void draw() {
    drawn = model.version();
    changed = false;
    long history = model.historySoFar();
    if (scrolledUp > 0 && history > historyDrawn) {
      // New output must not move the lines somebody is reading.
      scrolledUp = (int) Math.min(model.historyRows(), scrolledUp + history - historyDrawn);
    }
    historyDrawn = history;
    GraphicsContext g = canvas.getGraphicsContext2D();
    g.setFill(TerminalColours.GROUND);
    g.fillRect(0, 0, canvas.getWidth(), canvas.getHeight());
    g.setTextBaseline(VPos.CENTER);
    for (int line = 0; line < model.rows(); line++) {
      drawRow(g, line, line - scrolledUp);
    }
    drawCursor(g);
  }

  private void drawRow(GraphicsContext g, int line, int row) {
    double y = PADDING + line * cellHeight;
    List<TerminalModel.Run> runs = model.row(row);
    for (TerminalModel.Run run : runs) {
      TerminalColours.Pair colours = TerminalColours.of(run.style());
      if (!colours.ground().equals(TerminalColours.GROUND)) {
        g.setFill(colours.ground());
        fillCells(g, run.column(), run.text().length(), y);
      }
    }
    int from = selection.from(row);
    int to = selection.to(row, model.columns());
    if (to > from) {
      g.setFill(TerminalColours.SELECTED);
      fillCells(g, from, to - from, y);
    }
    for (TerminalModel.Run run : runs) {
      g.setFill(TerminalColours.of(run.style()).ink());
      g.setFont(run.style().hasOption(TextStyle.Option.BOLD) ? bold : plain);
      drawText(g, run, y);
      if (run.style().hasOption(TextStyle.Option.UNDERLINED)) {
        g.fillRect(
            PADDING + run.column() * cellWidth,
            y + cellHeight - 2,
            run.text().length() * cellWidth,
            1);
      }
    }
  }

  private void fillCells(GraphicsContext g, int column, int count, double y) {
    double x = Math.floor(PADDING + column * cellWidth);
    double end = Math.ceil(PADDING + (column + count) * cellWidth);
    g.fillRect(x, y, end - x, cellHeight);
  }

  /** ASCII goes out in one call; other text cell by cell, because its glyphs may be wider. */
  private void drawText(GraphicsContext g, TerminalModel.Run run, double y) {
    String text = run.text();
    double middle = y + cellHeight / 2;
    if (text.chars().allMatch(c -> c < 0x7f)) {
      g.fillText(text.replace('\0', ' '), PADDING + run.column() * cellWidth, middle);
      return;
    }
    for (int i = 0; i < text.length(); i++) {
      int end = Character.isHighSurrogate(text.charAt(i)) ? Math.min(i + 2, text.length()) : i + 1;
      if (text.charAt(i) > ' ') {
        g.fillText(text.substring(i, end), PADDING + (run.column() + i) * cellWidth, middle);
      }
      i = end - 1;
    }
  }

  private void drawCursor(GraphicsContext g) {
    int column = model.cursorColumn();
    int line = model.cursorRow() + scrolledUp;
    if (column < 0 || line >= model.rows()) {
      return;
    }
    double x = PADDING + column * cellWidth;
    double y = PADDING + line * cellHeight;
    if (isFocused()) {
      g.setGlobalAlpha(0.75);
      g.setFill(TerminalColours.CURSOR);
      g.fillRect(x, y, cellWidth, cellHeight);
      g.setGlobalAlpha(1);
    } else {
      g.setStroke(TerminalColours.CURSOR);
      g.strokeRect(x + 0.5, y + 0.5, cellWidth - 1, cellHeight - 1);
    }
  }
}
