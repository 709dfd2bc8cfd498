package zander.desk.term;

import com.techsenger.jeditermfx.core.CursorShape;
import com.techsenger.jeditermfx.core.RequestOrigin;
import com.techsenger.jeditermfx.core.TerminalDisplay;
import com.techsenger.jeditermfx.core.TerminalOutputStream;
import com.techsenger.jeditermfx.core.TextStyle;
import com.techsenger.jeditermfx.core.TtyBasedArrayDataStream;
import com.techsenger.jeditermfx.core.TtyConnector;
import com.techsenger.jeditermfx.core.emulator.JediEmulator;
import com.techsenger.jeditermfx.core.emulator.mouse.MouseFormat;
import com.techsenger.jeditermfx.core.emulator.mouse.MouseMode;
import com.techsenger.jeditermfx.core.model.JediTerminal;
import com.techsenger.jeditermfx.core.model.StyleState;
import com.techsenger.jeditermfx.core.model.TerminalLine;
import com.techsenger.jeditermfx.core.model.TerminalSelection;
import com.techsenger.jeditermfx.core.model.TerminalTextBuffer;
import com.techsenger.jeditermfx.core.util.TermSize;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.Reader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;

/**
 * A terminal's state: the emulator of the library fed from a stream, and what the view needs of it.
 *
 * <p>Feeding it ({@link #readAll}) runs on a thread of its own; the other methods may be called
 * from any thread. The view looks at {@link #version} and draws when it has changed, so fast output
 * costs no more than the frames that are drawn.
 */
public final class TerminalModel {
  private static final int HISTORY = 10_000;

  /** So many lines more are kept before the oldest go, all at once. */
  private static final int SLACK = 2_000;

  /**
   * The library copies the whole history for each line that it lets go of: it is given no bound.
   */
  private static final int UNBOUNDED = -1;

  private final StyleState style = new StyleState();
  private final TerminalTextBuffer buffer;
  private final JediTerminal terminal;
  private final Display display = new Display();
  private final Consumer<byte[]> input;
  private final SizeListener sizeListener;
  private volatile long version;
  private volatile Runnable touched = () -> {};
  private volatile boolean applicationCursor;
  private volatile boolean applicationKeypad;
  private volatile long letGo;
  private volatile boolean closed;

  /** Told of the size in characters. */
  public interface SizeListener {
    void resized(int columns, int rows);
  }

  /**
   * @param input takes what is typed, and what the terminal answers by itself
   */
  public TerminalModel(Consumer<byte[]> input, SizeListener sizeListener) {
    this.input = input;
    this.sizeListener = sizeListener;
    style.setDefaultStyle(TextStyle.EMPTY);
    buffer = new TerminalTextBuffer(80, 24, style, UNBOUNDED, null);
    terminal = new WatchedTerminal();
    terminal.setTerminalOutput(
        new TerminalOutputStream() {
          @Override
          public void sendBytes(byte[] response, boolean userInput) {
            input.accept(response);
          }

          @Override
          public void sendString(String text, boolean userInput) {
            input.accept(text.getBytes(StandardCharsets.UTF_8));
          }
        });
    buffer.addModelListener(this::touch);
  }

  private void touch() {
    version++;
    touched.run();
  }

  /** Sets what is run at each change, on any thread; it must be quick. */
  public void onChange(Runnable listener) {
    touched = listener;
  }

  /**
   * Tells which arrow keys and which keypad the program wants, which the emulator keeps to itself.
   */
  private final class WatchedTerminal extends JediTerminal {
    WatchedTerminal() {
      super(display, buffer, style);
    }

    @Override
    public void setApplicationArrowKeys(boolean enabled) {
      super.setApplicationArrowKeys(enabled);
      applicationCursor = enabled;
    }

    @Override
    public void setApplicationKeypad(boolean enabled) {
      super.setApplicationKeypad(enabled);
      applicationKeypad = enabled;
    }
  }

  /** Shows nothing more: what still comes is not looked at. */
  public void close() {
    closed = true;
  }

  /** Feeds the emulator until the stream ends, or until {@link #close}. */
  public void readAll(InputStream output) {
    Connector connector =
        new Connector(
            new SequenceGuard(
                new InputStreamReader(output, StandardCharsets.UTF_8),
                () -> Math.max(columns(), rows())));
    while (!closed && !connector.failed) {
      JediEmulator emulator = new JediEmulator(new TtyBasedArrayDataStream(connector), terminal);
      try {
        while (!closed && emulator.hasNext()) {
          emulator.next();
          touch();
          letGoOfOldest();
        }
        return;
      } catch (IOException | RuntimeException | StackOverflowError e) {
        // One sequence that the emulator cannot take must not end the terminal.
        org.slf4j.LoggerFactory.getLogger(TerminalModel.class).debug("bad sequence", e);
      }
    }
  }

  private void letGoOfOldest() {
    if (buffer.getHistoryLinesCount() <= HISTORY + SLACK) {
      return;
    }
    buffer.lock();
    try {
      int more = buffer.getHistoryLinesCount() - HISTORY;
      buffer.getHistoryBuffer().removeTopLines(more);
      letGo += more;
    } finally {
      buffer.unlock();
    }
  }

  public void resize(int columns, int rows) {
    if (columns != buffer.getWidth() || rows != buffer.getHeight()) {
      terminal.resize(new TermSize(columns, rows), RequestOrigin.User);
      touch();
      sizeListener.resized(buffer.getWidth(), buffer.getHeight());
    }
  }

  public void type(byte[] bytes) {
    if (bytes.length > 0) {
      input.accept(bytes);
    }
  }

  /** Whether the program in it takes a paste as one thing, and runs none of it by itself. */
  public boolean marksPastes() {
    return display.bracketedPaste;
  }

  /** Pastes text, marked as such when the program asked for that; it cannot end its own mark. */
  public void paste(PastedText pasted) {
    String text = pasted.text();
    String marked = marksPastes() ? "\033[200~" + text + "\033[201~" : text;
    type(marked.getBytes(StandardCharsets.UTF_8));
  }

  /** Counts up with every change. */
  public long version() {
    return version;
  }

  public int columns() {
    return buffer.getWidth();
  }

  public int rows() {
    return buffer.getHeight();
  }

  public int historyRows() {
    return buffer.getHistoryLinesCount();
  }

  /** How many lines have gone into the history since the start, those let go of included. */
  public long historySoFar() {
    return letGo + buffer.getHistoryLinesCount();
  }

  /** What the program asked of the keys. */
  public KeyEncoder.Modes modes() {
    return new KeyEncoder.Modes(applicationCursor, applicationKeypad);
  }

  public boolean isFullScreen() {
    return buffer.isUsingAlternateBuffer();
  }

  /** The cursor's column from 0, or -1 while it is hidden. */
  public int cursorColumn() {
    return display.cursorVisible ? display.cursorColumn : -1;
  }

  /** The cursor's row from 0. */
  public int cursorRow() {
    return display.cursorRow - 1;
  }

  /** One run of text in one style. */
  public record Run(int column, String text, TextStyle style) {}

  /**
   * What is in a row.
   *
   * @param row from 0 at the top of the screen; negative in the history
   */
  public List<Run> row(int row) {
    List<Run> runs = new ArrayList<>();
    buffer.lock();
    try {
      if (row >= buffer.getHeight() || row < -buffer.getHistoryLinesCount()) {
        return runs;
      }
      if (row >= 0 && row >= buffer.getScreenLinesCount()) {
        return runs;
      }
      int column = 0;
      for (TerminalLine.TextEntry entry : buffer.getLine(row).getEntries()) {
        int length = entry.getLength();
        if (!entry.isNul()) {
          runs.add(new Run(column, entry.getText().toString(), entry.getStyle()));
        }
        column += length;
      }
    } finally {
      buffer.unlock();
    }
    return runs;
  }

  /** The text of a row without trailing blanks. */
  public String rowText(int row) {
    StringBuilder text = new StringBuilder();
    for (Run run : row(row)) {
      while (text.length() < run.column()) {
        text.append(' ');
      }
      text.append(run.text().replace('\0', ' '));
    }
    return text.toString().stripTrailing();
  }

  /** The screen's text, row by row. */
  public String screenText() {
    StringBuilder text = new StringBuilder();
    for (int row = 0; row < rows(); row++) {
      text.append(rowText(row)).append('\n');
    }
    return text.toString();
  }

  /** The part of the library's terminal that a view would be; it only keeps what it is told. */
  private final class Display implements TerminalDisplay {
    private volatile int cursorColumn;
    private volatile int cursorRow = 1;
    private volatile boolean cursorVisible = true;
    private volatile boolean bracketedPaste;
    private String title = "";

    @Override
    public void setCursor(int x, int y) {
      cursorColumn = x;
      cursorRow = y;
      touch();
    }

    @Override
    public void setCursorShape(CursorShape shape) {}

    @Override
    public void beep() {}

    @Override
    public void scrollArea(int top, int size, int dy) {
      touch();
    }

    @Override
    public void setCursorVisible(boolean visible) {
      cursorVisible = visible;
      touch();
    }

    @Override
    public void useAlternateScreenBuffer(boolean on) {
      touch();
    }

    @Override
    public String getWindowTitle() {
      return title;
    }

    @Override
    public void setWindowTitle(String windowTitle) {
      title = windowTitle;
    }

    @Override
    public TerminalSelection getSelection() {
      return null;
    }

    @Override
    public void terminalMouseModeSet(MouseMode mode) {}

    @Override
    public void setMouseFormat(MouseFormat format) {}

    @Override
    public boolean ambiguousCharsAreDoubleWidth() {
      return false;
    }

    @Override
    public void setBracketedPasteMode(boolean on) {
      bracketedPaste = on;
    }
  }

  /** The library's way to read: characters from the stream, decoded as UTF-8. */
  private static final class Connector implements TtyConnector {
    private final Reader reader;
    private volatile boolean failed;

    Connector(Reader reader) {
      this.reader = reader;
    }

    @Override
    public int read(char[] into, int offset, int length) throws IOException {
      try {
        int count = reader.read(into, offset, length);
        failed = count < 0;
        return count;
      } catch (IOException e) {
        failed = true;
        return -1;
      }
    }

    @Override
    public void write(byte[] bytes) {}

    @Override
    public void write(String text) {}

    @Override
    public boolean isConnected() {
      return !failed;
    }

    @Override
    public int waitFor() {
      return 0;
    }

    @Override
    public boolean ready() throws IOException {
      return reader.ready();
    }

    @Override
    public String getName() {
      return "shell";
    }

    @Override
    public void close() {}
  }
}
