package zander.bench;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.concurrent.DelayQueue;
import java.util.concurrent.Delayed;
import java.util.concurrent.TimeUnit;

/** A line on the loopback that delivers every byte later, half a round trip in each direction. */
final class DelayedLine implements Closeable {
  private final ServerSocket listener;
  private final int target;
  private final long oneWay;

  /**
   * @param roundTrip milliseconds; 0 for a plain relay
   */
  DelayedLine(int targetPort, long roundTrip) throws IOException {
    target = targetPort;
    oneWay = TimeUnit.MILLISECONDS.toNanos(roundTrip) / 2;
    listener = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
    daemon(this::accept);
  }

  int port() {
    return listener.getLocalPort();
  }

  private static void daemon(Runnable task) {
    Thread thread = new Thread(task, "delayed-line");
    thread.setDaemon(true);
    thread.start();
  }

  private record Part(byte[] bytes, long due) implements Delayed {
    @Override
    public long getDelay(TimeUnit unit) {
      return unit.convert(due - System.nanoTime(), TimeUnit.NANOSECONDS);
    }

    @Override
    public int compareTo(Delayed other) {
      return Long.compare(due, ((Part) other).due);
    }
  }

  private void accept() {
    while (!listener.isClosed()) {
      try {
        Socket near = listener.accept();
        Socket far = new Socket(InetAddress.getLoopbackAddress(), target);
        near.setTcpNoDelay(true);
        far.setTcpNoDelay(true);
        carry(near, far);
        carry(far, near);
      } catch (IOException e) {
        return;
      }
    }
  }

  private void carry(Socket from, Socket to) {
    DelayQueue<Part> parts = new DelayQueue<>();
    daemon(
        () -> {
          byte[] buffer = new byte[65536];
          try (InputStream in = from.getInputStream()) {
            long last = 0;
            for (int count; (count = in.read(buffer)) >= 0; ) {
              // Strictly later than the part before, so that none overtakes another.
              last = Math.max(last + 1, System.nanoTime() + oneWay);
              parts.add(new Part(java.util.Arrays.copyOf(buffer, count), last));
            }
          } catch (IOException e) {
            // One end went away; the end marker below closes the other.
          }
          parts.add(new Part(null, System.nanoTime() + oneWay));
        });
    daemon(
        () -> {
          try (OutputStream out = to.getOutputStream()) {
            for (Part part; (part = parts.take()).bytes != null; ) {
              out.write(part.bytes);
              out.flush();
            }
          } catch (IOException e) {
            // As above.
          } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
          }
        });
  }

  @Override
  public void close() throws IOException {
    listener.close();
  }
}
