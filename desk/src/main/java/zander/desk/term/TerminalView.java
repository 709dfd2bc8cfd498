package zander.desk.term;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.BiFunction;
import java.util.function.Consumer;
import java.util.function.LongConsumer;
import javafx.animation.AnimationTimer;
import javafx.application.Platform;
import javafx.scene.AccessibleAttribute;
import javafx.scene.AccessibleRole;
import javafx.scene.Cursor;
import javafx.scene.canvas.Canvas;
import javafx.scene.canvas.GraphicsContext;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import org.jspecify.annotations.Nullable;
import zander.core.term.TerminalModes;
import zander.core.term.TerminalPicture;
import zander.core.term.screen.Row;
import zander.desk.words.Words;

/**
 * Draws a terminal on a canvas: at most once a frame, and only the rows that have changed. What is
 * typed and done with the mouse goes to {@link TerminalKeys} and {@link TerminalMouse}.
 */
public final class TerminalView extends Region {
  private static final Words WORDS = Words.of(TerminalView.class);

  private static final long USUAL_SIZE = 13;
  private static final long SMALLEST = 8;
  private static final long LARGEST = 32;

  /** So many frames without a change, and the view waits to be told of the next. */
  private static final int QUIET_FRAMES = 30;

  /** A program that asks for nothing to be drawn is taken at its word for so long, in ns. */
  private static final long LONGEST_HOLD = 150_000_000;

  private final TerminalModel model;
  private final Consumer<String> pasting;
  private final Canvas canvas = new Canvas();
  private final TerminalColours colours;
  private final Selection selection = new Selection();
  private final Found found;
  private final AnimationTimer timer;
  private final AtomicBoolean asleep = new AtomicBoolean();
  private final Blinking blinking;
  private ShellColours chosen = ShellColours.DARK;
  private long size = USUAL_SIZE;
  private LongConsumer sized = points -> {};
  private RowPainter painter;
  private int quietFrames;

  /** The first row to be shown, or that of the screen. */
  private long first = TerminalPicture.SCREEN;

  private @Nullable TerminalPicture picture;
  private Row[] drawn = new Row[0];
  private boolean[] blinks = new boolean[0];
  private int drawnCursorLine = -1;
  private @Nullable Color drawnGround;
  private boolean drawnDark;
  private boolean changed = true;

  /** What blinks is to come or to go: the only reason to draw. */
  private boolean turned;

  /**
   * @param pasting told what is to be pasted, as it is on the clipboard
   * @param following told what somebody wants to go to
   * @param later runs something on the interface thread after a pause
   */
  public TerminalView(
      TerminalModel model,
      Consumer<String> pasting,
      Consumer<TextLink> following,
      BiFunction<Duration, Runnable, Future<?>> later) {
    this.model = model;
    this.blinking = new Blinking(later, this::turn);
    this.pasting = pasting;
    this.colours = new TerminalColours(model.terminal().palette());
    this.found = new Found(model);
    painter = new RowPainter(canvas.getGraphicsContext2D(), colours, size);
    getChildren().add(canvas);
    getStyleClass().add("terminal");
    setAccessibleRole(AccessibleRole.TEXT_AREA);
    setAccessibleText(WORDS.say("shell"));
    setFocusTraversable(true);
    setCursor(Cursor.TEXT);
    setMinSize(0, 0);
    new TerminalKeys(this, model);
    new TerminalMouse(this, model, selection, following);
    focusedProperty().addListener((observed, old, now) -> focusChanged(now));
    timer =
        new AnimationTimer() {
          @Override
          public void handle(long now) {
            if (changed || turned || picture == null || picture.version() != model.version()) {
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
              blinking.stop();
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

  private void focusChanged(boolean now) {
    if (model.modes().isFocusReported()) {
      model.type(new byte[] {27, '[', (byte) (now ? 'I' : 'O')});
    }
    repaint();
  }

  /** A timer that runs has the window drawn at each frame, whether anything changed or not. */
  private void rest() {
    timer.stop();
    asleep.set(true);
    if (picture == null || picture.version() != model.version()) {
      repaint();
    }
  }

  private void lookAgain() {
    if (getScene() != null) {
      timer.start();
    }
  }

  /** Alone it does not wake the timer, which would have the window drawn for half a second. */
  private void turn() {
    turned = true;
    if (asleep.get() && getScene() != null) {
      draw();
    }
    if (turned) {
      wake();
    }
  }

  /** Draws all of it at the next frame. */
  public void repaint() {
    changed = true;
    wake();
  }

  private void wake() {
    if (asleep.compareAndSet(true, false)) {
      lookAgain();
    }
  }

  @Override
  protected void layoutChildren() {
    canvas.setWidth(getWidth());
    canvas.setHeight(getHeight());
    int columns = (int) ((getWidth() - 2 * RowPainter.PADDING) / painter.cellWidth());
    int rows = (int) ((getHeight() - 2 * RowPainter.PADDING) / painter.cellHeight());
    if (columns >= 2 && rows >= 2) {
      if (columns != model.columns()) {
        // The text is wrapped anew: what was marked is elsewhere.
        selection.clear();
        found.show(List.of());
      }
      model.resize(columns, rows);
    }
    repaint();
  }

  /** Makes the text larger or smaller by points; 0 makes it as it was. */
  void zoom(int by) {
    size(by == 0 ? USUAL_SIZE : size + by);
    sized.accept(size);
  }

  /** Sets the size of the text in points, as far as it can be read. */
  public void size(long points) {
    size = Math.max(SMALLEST, Math.min(LARGEST, points));
    painter = new RowPainter(canvas.getGraphicsContext2D(), colours, size);
    requestLayout();
  }

  /** Sets who is told of another size that was chosen by key. */
  public void onSize(LongConsumer listener) {
    sized = listener;
  }

  /** Takes other colours. */
  public void colours(ShellColours wanted) {
    chosen = wanted;
    model.terminal().colours(wanted.palette());
    repaint();
  }

  RowPainter painter() {
    return painter;
  }

  /** What is found in it, and marked. */
  public Found found() {
    return found;
  }

  // Copy and paste.

  /** Puts the selected text on the clipboard. */
  public void copy() {
    String text = model.terminal().look(screen -> selection.text(number -> screen.rowOf(number)));
    if (!text.isEmpty()) {
      ClipboardContent content = new ClipboardContent();
      content.putString(text);
      Clipboard.getSystemClipboard().setContent(content);
    }
  }

  public void paste() {
    String text = Clipboard.getSystemClipboard().getString();
    if (text != null && !text.isEmpty()) {
      toScreen();
      pasting.accept(text);
    }
  }

  /** Sends what was typed: whoever types looks at the screen. */
  void send(byte[] bytes) {
    toScreen();
    if (!selection.isEmpty()) {
      selection.clear();
      repaint();
    }
    model.type(bytes);
  }

  // Where it is scrolled to.

  private void toScreen() {
    if (first != TerminalPicture.SCREEN) {
      first = TerminalPicture.SCREEN;
      repaint();
    }
  }

  /** Shows what is above by so many rows, or below with a negative number. */
  void scrollBy(long rows) {
    if (picture != null) {
      show(picture.firstRow() - rows);
    }
  }

  /** Shows a row in the upper part, unless it is on the screen. */
  public void showRow(long number) {
    if (row(number) == null) {
      show(number - model.rows() / 3);
    } else {
      repaint();
    }
  }

  private void show(long wanted) {
    first = picture != null && wanted >= picture.topRow() ? TerminalPicture.SCREEN : wanted;
    repaint();
  }

  /** What is drawn now; null before the first frame. */
  /** A row as it was drawn last; {@code null} where it was not. */
  @Nullable Row row(long number) {
    return picture == null ? null : picture.row(number);
  }

  @Nullable TerminalPicture picture() {
    return picture;
  }

  // Drawing.

  private void draw() {
    TerminalModes modes = model.modes();
    long held = modes.heldSince();
    if (held != 0 && !changed && System.nanoTime() - held < LONGEST_HOLD) {
      return;
    }
    if (changed || picture == null || picture.version() != model.version()) {
      blinking.begin();
    }
    TerminalPicture now = model.picture(first, picture);
    if (now == null) {
      return;
    }
    colours.reversed(modes.isReverseScreen());
    boolean other = picture == null || picture.columns() != now.columns();
    boolean all = changed || other || !colours.ground().equals(drawnGround);
    changed = false;
    turned = false;
    picture = now;
    if (first < now.firstRow()) {
      first = now.firstRow();
    }
    GraphicsContext g = canvas.getGraphicsContext2D();
    if (all) {
      drawnGround = colours.ground();
      g.setFill(colours.ground());
      g.fillRect(0, 0, canvas.getWidth(), canvas.getHeight());
    }
    int lines = now.rows().size();
    if (drawn.length != lines) {
      drawn = new Row[lines];
      blinks = new boolean[lines];
    }
    int cursorLine = (int) Math.min(lines, now.cursorRow() - now.firstRow());
    boolean dark = blinking.isDark();
    boolean inSight = false;
    for (int line = 0; line < lines; line++) {
      Row row = now.rows().get(line);
      boolean turns = blinks[line] && dark != drawnDark;
      if (all || turns || drawn[line] != row || line == drawnCursorLine || line == cursorLine) {
        blinks[line] =
            painter.paint(
                row, line, now.columns(), marks(now.firstRow() + line, now.columns()), dark);
        drawn[line] = row;
      }
      inSight |= blinks[line];
    }
    drawnDark = dark;
    drawnCursorLine = -1;
    if (modes.isCursorVisible() && cursorLine < lines) {
      boolean blinkingCursor = modes.isCursorBlinking() && isFocused();
      inSight |= blinkingCursor;
      if (!(blinkingCursor && dark)) {
        Row row = now.rows().get(cursorLine);
        painter.cursor(row, now.cursorX(), cursorLine, modes.cursorShape(), isFocused());
      }
      drawnCursorLine = cursorLine;
    }
    blinking.goOn(inSight);
  }

  private List<RowPainter.Mark> marks(long number, int columns) {
    List<RowPainter.Mark> marks = new ArrayList<>(found.marks(number, chosen));
    int from = selection.from(number);
    int to = selection.to(number, columns);
    if (to > from) {
      marks.add(new RowPainter.Mark(from, to, chosen.selected()));
    }
    return marks;
  }

  // What a screen reader says.

  @Override
  public Object queryAccessibleAttribute(AccessibleAttribute attribute, Object... parameters) {
    if (picture != null) {
      Row row = picture.row(picture.cursorRow());
      switch (attribute) {
        case TEXT -> {
          return row == null ? "" : row.text().stripTrailing();
        }
        case CARET_OFFSET -> {
          return picture.cursorX();
        }
        default -> {
          // As any region.
        }
      }
    }
    return super.queryAccessibleAttribute(attribute, parameters);
  }
}
