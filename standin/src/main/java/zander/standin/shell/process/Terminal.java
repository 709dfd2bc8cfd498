package zander.standin.shell.process;

import java.io.FilterOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;

/**
 * The server's end of a terminal: keys come in on a thread of its own, {@code \n} goes out as
 * {@code \r\n}, and Ctrl+C interrupts what runs.
 */
public final class Terminal {
  /** Stands for the end of the input. */
  public static final int END = -1;

  private static final int CTRL_C = 3;

  private final BlockingQueue<Integer> keys = new LinkedBlockingQueue<>();
  private final OutputStream out;
  private volatile int columns;
  private volatile int rows;
  private volatile Thread foreground;
  private volatile boolean raw;

  public Terminal(InputStream in, OutputStream out, int columns, int rows) {
    this.out = new NewLines(out);
    this.columns = columns;
    this.rows = rows;
    Thread reader = new Thread(() -> read(in), "standin-keys");
    reader.setDaemon(true);
    reader.start();
  }

  private void read(InputStream in) {
    try {
      for (int key; (key = in.read()) >= 0; ) {
        Thread running = foreground;
        if (key == CTRL_C && running != null && !raw) {
          running.interrupt();
        } else {
          keys.add(key);
        }
      }
    } catch (IOException e) {
      // The channel is gone: the same as the end of the input.
    }
    keys.add(END);
    Thread running = foreground;
    if (running != null) {
      running.interrupt();
    }
  }

  /** The next key as a byte, or {@link #END}; waits. */
  public int readKey() {
    try {
      int key = keys.take();
      if (key == END) {
        keys.add(END);
      }
      return key;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return CTRL_C;
    }
  }

  /** The next key if one comes in time, or -2. */
  public int pollKey(long milliseconds) {
    try {
      Integer key = keys.poll(milliseconds, TimeUnit.MILLISECONDS);
      return key == null ? -2 : key;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return CTRL_C;
    }
  }

  public OutputStream out() {
    return out;
  }

  public int columns() {
    return columns;
  }

  public int rows() {
    return rows;
  }

  public void resized(int newColumns, int newRows) {
    columns = newColumns;
    rows = newRows;
  }

  /** While set, Ctrl+C is a key like others. */
  public void setRaw(boolean raw) {
    this.raw = raw;
  }

  /** The thread that Ctrl+C interrupts; {@code null} for none. */
  public void setForeground(Thread thread) {
    foreground = thread;
  }

  private static final class NewLines extends FilterOutputStream {
    NewLines(OutputStream out) {
      super(out);
    }

    @Override
    public synchronized void write(int b) throws IOException {
      if (b == '\n') {
        out.write('\r');
      }
      out.write(b);
    }

    @Override
    public synchronized void write(byte[] bytes, int offset, int length) throws IOException {
      java.io.ByteArrayOutputStream translated = new java.io.ByteArrayOutputStream(length + 16);
      for (int i = offset; i < offset + length; i++) {
        if (bytes[i] == '\n') {
          translated.write('\r');
        }
        translated.write(bytes[i]);
      }
      out.write(translated.toByteArray());
      out.flush();
    }
  }
}
