package zander.core.connect.command;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;

/** What a script writes to its error stream, as far as anyone could want to read it. */
final class ErrorText extends OutputStream {
  private static final int MOST = 256 * 1024;

  private final StringBuilder text = new StringBuilder();
  private boolean ended;
  private boolean tooMuch;

  @Override
  public void write(int b) {
    write(new byte[] {(byte) b}, 0, 1);
  }

  @Override
  public synchronized void write(byte[] bytes, int offset, int length) {
    int taken = Math.min(length, MOST - text.length());
    tooMuch |= taken < length;
    text.append(new String(bytes, offset, taken, StandardCharsets.ISO_8859_1));
    notifyAll();
  }

  synchronized void end() {
    ended = true;
    notifyAll();
  }

  /** See {@link Pipe#errorsUntil}. */
  synchronized String until(String mark) throws IOException {
    try {
      while (true) {
        int at = text.indexOf(mark);
        int end = at < 0 ? -1 : text.indexOf("\n", at);
        if (end >= 0) {
          String before = text.substring(0, text.lastIndexOf("\n", at) + 1);
          text.delete(0, end + 1);
          return before;
        }
        if (ended || tooMuch) {
          throw new IOException(ended ? "the script ended" : "the script says too much");
        }
        wait();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
  }

  synchronized byte[] left() {
    return text.toString().getBytes(StandardCharsets.ISO_8859_1);
  }
}
