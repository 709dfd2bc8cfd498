package zander.desk.term;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.Executor;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.term.Terminal;
import zander.core.term.TerminalListener;
import zander.core.term.TerminalModes;
import zander.core.term.TerminalPicture;
import zander.core.term.screen.Row;
import zander.core.term.screen.Scrollback;

/**
 * A terminal and the program in it: fed from a stream, and asked by the view.
 *
 * <p>Feeding it ({@link #readAll}) runs on a thread of its own; the other methods may be called
 * from any thread. The view looks at {@link #version} and draws when it has changed, so fast output
 * costs no more than the frames that are drawn.
 */
public final class TerminalModel {
  private static final int COLUMNS = 80;
  private static final int ROWS = 24;
  private static final int HISTORY_ROWS = 100_000;
  private static final long HISTORY_BYTES = 40L << 20;
  private static final int READ = 32 * 1024;

  private final Terminal terminal;
  private final Consumer<byte[]> input;
  private final SizeListener sizeListener;
  private final Executor resizing;
  private final AtomicBoolean resizeDue = new AtomicBoolean();
  private volatile int columns = COLUMNS;
  private volatile int rows = ROWS;
  private volatile Runnable touched = () -> {};
  private volatile boolean closed;

  /** Told of the size in characters. */
  public interface SizeListener {
    void resized(int columns, int rows);
  }

  /**
   * @param input takes what is typed, and what the terminal answers by itself
   */
  public TerminalModel(Consumer<byte[]> input, SizeListener sizeListener) {
    this(input::accept, input, sizeListener, Runnable::run);
  }

  /**
   * @param listener told of what is not on the screen, the terminal's answers among it
   * @param input takes what is typed
   * @param resizing gives the terminal another size, which may take tenths of a second
   */
  public TerminalModel(
      TerminalListener listener,
      Consumer<byte[]> input,
      SizeListener sizeListener,
      Executor resizing) {
    this.resizing = resizing;
    this.input = input;
    this.sizeListener = sizeListener;
    this.terminal =
        new Terminal(
            COLUMNS,
            ROWS,
            new Scrollback(HISTORY_ROWS, HISTORY_BYTES),
            ShellColours.DARK.palette(),
            listener);
  }

  /** Sets what is run at each change, on any thread; it must be quick. */
  public void onChange(Runnable listener) {
    touched = listener;
  }

  /** Shows nothing more: what still comes is not looked at. */
  public void close() {
    closed = true;
  }

  /** Feeds the terminal until the stream ends, or until {@link #close}. */
  public void readAll(InputStream output) {
    byte[] buffer = new byte[READ];
    try {
      for (int count; !closed && (count = output.read(buffer)) >= 0; ) {
        terminal.feed(buffer, 0, count);
        touched.run();
      }
    } catch (IOException e) {
      // The stream is over; whoever opened it knows why.
    }
  }

  /** Another program comes; see {@link Terminal#renew}. */
  public void renew() {
    terminal.renew();
    touched.run();
  }

  /** Takes another size soon; of several that are wanted meanwhile, the last one. */
  public void resize(int toColumns, int toRows) {
    if (toColumns != columns || toRows != rows) {
      columns = toColumns;
      rows = toRows;
      if (resizeDue.compareAndSet(false, true)) {
        resizing.execute(this::resizeNow);
      }
    }
  }

  private synchronized void resizeNow() {
    resizeDue.set(false);
    int newColumns = columns;
    int newRows = rows;
    terminal.resize(newColumns, newRows);
    touched.run();
    sizeListener.resized(newColumns, newRows);
  }

  public void type(byte[] bytes) {
    if (bytes.length > 0) {
      input.accept(bytes);
    }
  }

  /** Whether the program in it takes a paste as one thing, and runs none of it by itself. */
  public boolean marksPastes() {
    return terminal.modes().isBracketedPaste();
  }

  /** Pastes text, marked as such when the program asked for that; it cannot end its own mark. */
  public void paste(PastedText pasted) {
    String text = pasted.text();
    String marked = marksPastes() ? "\033[200~" + text + "\033[201~" : text;
    type(marked.getBytes(StandardCharsets.UTF_8));
  }

  /** Counts up with every change. */
  public long version() {
    return terminal.version();
  }

  public int columns() {
    return columns;
  }

  public int rows() {
    return rows;
  }

  /** What the program asked of keys, mouse and view. */
  public TerminalModes modes() {
    return terminal.modes();
  }

  /** The terminal itself, for what draws it. */
  Terminal terminal() {
    return terminal;
  }

  /** What is to be drawn, or null for what was; see {@link Terminal#picture}. */
  @Nullable TerminalPicture picture(long from, @Nullable TerminalPicture before) {
    return terminal.picture(from, before);
  }

  public boolean isFullScreen() {
    return terminal.look(screen -> screen.isAlternate());
  }

  /** How many rows have left the screen and are kept. */
  public int historyRows() {
    return terminal.look(screen -> screen.scrollback().count());
  }

  /** The text of a row of the screen, or with a negative number of the history. */
  public String rowText(int row) {
    return terminal.look(
        screen -> {
          Row found = screen.rowOf(screen.topRow() + row);
          return found == null ? "" : found.text().stripTrailing();
        });
  }

  /** The screen's text, row by row. */
  public String screenText() {
    return terminal.look(
        screen -> {
          StringBuilder text = new StringBuilder();
          for (int y = 0; y < screen.rows(); y++) {
            text.append(screen.row(y).text().stripTrailing()).append('\n');
          }
          return text.toString();
        });
  }
}
