package zander.core.connect.channel;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Map;

/**
 * A command whose output is read as a stream. The server may send on only as far as what came was
 * read, so that a slow reader keeps neither memory nor the other channels.
 */
public final class StreamChannel extends CommandChannel {
  private static final int RELEASE_EVERY = 512 * 1024;

  private final ArrayDeque<byte[]> parts = new ArrayDeque<>();
  private boolean ended;

  public StreamChannel(byte[] command) {
    super(command, null, Map.of());
    setOut(OutputStream.nullOutputStream());
    addCloseFutureListener(closed -> end());
  }

  @Override
  protected void doWriteData(byte[] data, int offset, long length) {
    byte[] part = Arrays.copyOfRange(data, offset, offset + (int) length);
    synchronized (parts) {
      parts.addLast(part);
      parts.notifyAll();
    }
  }

  @Override
  public void handleEof() throws IOException {
    super.handleEof();
    end();
  }

  /** Tells the command that nothing more comes. */
  public void endInput() {
    try {
      sendEof();
    } catch (IOException e) {
      // The line went, and the command with it.
    }
  }

  private void end() {
    synchronized (parts) {
      ended = true;
      parts.notifyAll();
    }
  }

  /** For one thread. */
  public InputStream output() {
    return new InputStream() {
      private byte[] part = new byte[0];
      private int taken;
      private int unreleased;

      @Override
      public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
      }

      @Override
      public int read(byte[] into, int offset, int length) throws IOException {
        int read = 0;
        while (read < length && (taken < part.length || next(read == 0))) {
          int count = Math.min(length - read, part.length - taken);
          System.arraycopy(part, taken, into, offset + read, count);
          taken += count;
          read += count;
        }
        return read == 0 && length > 0 ? -1 : read;
      }

      private boolean next(boolean wait) throws IOException {
        unreleased += part.length;
        part = new byte[0];
        taken = 0;
        if (unreleased >= RELEASE_EVERY) {
          getLocalWindow().release(unreleased);
          unreleased = 0;
        }
        synchronized (parts) {
          try {
            while (wait && parts.isEmpty() && !ended) {
              parts.wait();
            }
          } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException("interrupted", e);
          }
          if (parts.isEmpty()) {
            return false;
          }
          part = parts.removeFirst();
          return true;
        }
      }
    };
  }
}
