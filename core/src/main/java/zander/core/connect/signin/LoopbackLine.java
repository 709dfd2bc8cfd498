package zander.core.connect.signin;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.SocketAddress;
import java.util.concurrent.CountDownLatch;
import org.jspecify.annotations.Nullable;
import zander.core.work.Carrier;

/**
 * A line to a server that is no socket of ours: through a jump host, or by a command. The library
 * connects to one socket of the loopback. Exactly one connection is taken, and only from our own
 * end: another program on this computer that is quicker is sent away.
 */
final class LoopbackLine implements Closeable {
  /** What it leads to. */
  interface FarEnd extends Closeable {
    InputStream in();

    OutputStream out();

    @Override
    void close();
  }

  private final FarEnd far;
  private final ServerSocket door;
  private final CountDownLatch ours = new CountDownLatch(1);
  private volatile @Nullable SocketAddress near;
  private volatile @Nullable Socket socket;

  private LoopbackLine(FarEnd far, ServerSocket door) {
    this.far = far;
    this.door = door;
  }

  static LoopbackLine to(FarEnd far) throws IOException {
    LoopbackLine line =
        new LoopbackLine(far, new ServerSocket(0, 1, InetAddress.getLoopbackAddress()));
    Carrier.start("line-door", line::take);
    return line;
  }

  /** Where to connect to. */
  InetSocketAddress address() {
    return new InetSocketAddress(InetAddress.getLoopbackAddress(), door.getLocalPort());
  }

  /** Tells which end is ours; until then nothing is carried. */
  void connected(SocketAddress localEnd) {
    near = localEnd;
    ours.countDown();
  }

  private void take() {
    try (door) {
      while (socket == null) {
        Socket taken = door.accept();
        ours.await();
        if (taken.getRemoteSocketAddress().equals(near)) {
          socket = taken;
        } else {
          taken.close();
        }
      }
      socket.setTcpNoDelay(true);
      InputStream fromSocket = socket.getInputStream();
      OutputStream toSocket = socket.getOutputStream();
      Carrier.start("line-up", () -> carry(fromSocket, far.out()));
      carry(far.in(), toSocket);
    } catch (IOException e) {
      close();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      close();
    }
  }

  private void carry(InputStream from, OutputStream to) {
    Carrier.carry(from, to);
    close();
  }

  @Override
  public void close() {
    ours.countDown();
    far.close();
    try {
      door.close();
      if (socket != null) {
        socket.close();
      }
    } catch (IOException e) {
      // Closed is what they are to be.
    }
  }
}
