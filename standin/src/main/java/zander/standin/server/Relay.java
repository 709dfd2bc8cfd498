package zander.standin.server;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.AtomicLong;
import java.util.concurrent.locks.LockSupport;

/**
 * A line of its own between a client and a server on the loopback, which can be cut after a chosen
 * number of bytes, counted in both directions together.
 */
public final class Relay implements Closeable {
  private final ServerSocket listener;
  private final int target;
  private final Set<Socket> sockets = ConcurrentHashMap.newKeySet();
  private final AtomicLong left = new AtomicLong(Long.MAX_VALUE);
  private volatile boolean silent;
  private volatile long rate;
  private final AtomicLong carried = new AtomicLong();

  public Relay(int targetPort) throws IOException {
    target = targetPort;
    listener = new ServerSocket(0, 50, InetAddress.getLoopbackAddress());
    daemon(this::accept);
  }

  public int port() {
    return listener.getLocalPort();
  }

  /** How many bytes went over so far, both ways. */
  public long carried() {
    return carried.get();
  }

  /** Cuts all lines after so many more bytes; what comes before is still delivered. */
  public void cutAfter(long bytes) {
    silent = false;
    left.set(bytes);
  }

  /**
   * Falls silent after so many more bytes: nothing comes through any more, but nobody is told, as
   * when a cable is pulled.
   */
  public void stallAfter(long bytes) {
    silent = true;
    left.set(bytes);
  }

  /** Carries no more than so many bytes a second each way, from now on. */
  public void slow(long bytesPerSecond) {
    rate = bytesPerSecond;
  }

  /** Carries everything again, on lines opened from now on. */
  public void heal() {
    cutNow();
    left.set(Long.MAX_VALUE);
  }

  private static void daemon(Runnable task) {
    Thread thread = new Thread(task, "relay");
    thread.setDaemon(true);
    thread.start();
  }

  private void accept() {
    while (!listener.isClosed()) {
      try {
        Socket near = listener.accept();
        Socket far = new Socket(InetAddress.getLoopbackAddress(), target);
        near.setTcpNoDelay(true);
        far.setTcpNoDelay(true);
        sockets.add(near);
        sockets.add(far);
        daemon(() -> carry(near, far));
        daemon(() -> carry(far, near));
      } catch (IOException e) {
        // Closed, or the server is not there: the client sees a closed line.
      }
    }
  }

  private void carry(Socket from, Socket to) {
    byte[] buffer = new byte[65536];
    try {
      InputStream in = from.getInputStream();
      OutputStream out = to.getOutputStream();
      for (int count; (count = in.read(buffer)) >= 0; ) {
        long allowed = left.getAndAdd(-count);
        int pass = (int) Math.max(0, Math.min(count, allowed));
        out.write(buffer, 0, pass);
        out.flush();
        carried.addAndGet(pass);
        if (rate > 0) {
          LockSupport.parkNanos(pass * 1_000_000_000L / rate);
        }
        if (silent && pass < count) {
          continue;
        }
        if (pass < count || (allowed == count && !silent)) {
          cutNow();
          return;
        }
      }
    } catch (IOException e) {
      // Either end went away; the other follows.
    }
    close(from);
    close(to);
  }

  /** Cuts all lines at once. */
  public void cutNow() {
    sockets.forEach(Relay::close);
    sockets.clear();
  }

  private static void close(Socket socket) {
    try {
      socket.close();
    } catch (IOException e) {
      // Closed is what it is to be.
    }
  }

  @Override
  public void close() {
    try {
      listener.close();
    } catch (IOException e) {
      // The port goes with the process at the latest.
    }
    cutNow();
  }
}
