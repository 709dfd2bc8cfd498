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
import org.apache.sshd.client.channel.ChannelDirectTcpip;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.util.net.SshdSocketAddress;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.Timeouts;

/**
 * The way through a jump host: a channel of it to the next server (RFC 4254, section 7.2), and one
 * socket of the loopback for the library to connect to. Exactly one connection is taken, and only
 * from our own end: another program on this computer that is quicker is sent away.
 */
final class JumpTunnel implements Closeable {
  private static final int CHUNK = 64 * 1024;

  private final ChannelDirectTcpip channel;
  private final ServerSocket door;
  private final CountDownLatch ours = new CountDownLatch(1);
  private volatile SocketAddress near;
  private volatile Socket socket;

  private JumpTunnel(ChannelDirectTcpip channel, ServerSocket door) {
    this.channel = channel;
    this.door = door;
  }

  /**
   * Asks the jump host for a line to the next server. Waits for both.
   *
   * @throws org.apache.sshd.common.channel.exception.SshChannelOpenException when it refuses, or
   *     cannot reach the server
   */
  static JumpTunnel open(ClientSession through, ServerAddress next) throws IOException {
    ChannelDirectTcpip channel =
        new ChannelDirectTcpip(
            new SshdSocketAddress(InetAddress.getLoopbackAddress().getHostAddress(), 0),
            new SshdSocketAddress(next.host(), next.port()));
    through
        .getService(org.apache.sshd.common.session.ConnectionService.class)
        .registerChannel(channel);
    channel.open().verify(Timeouts.OPENING);
    JumpTunnel line =
        new JumpTunnel(channel, new ServerSocket(0, 1, InetAddress.getLoopbackAddress()));
    daemon("jump-door", line::take);
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
      daemon("jump-up", () -> carry(fromSocket, channel.getInvertedIn()));
      carry(channel.getInvertedOut(), toSocket);
    } catch (IOException e) {
      close();
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      close();
    }
  }

  private void carry(InputStream from, OutputStream to) {
    byte[] buffer = new byte[CHUNK];
    try {
      for (int count; (count = from.read(buffer)) >= 0; ) {
        to.write(buffer, 0, count);
        to.flush();
      }
    } catch (IOException e) {
      // Either end went away; the other follows.
    }
    close();
  }

  private static void daemon(String name, Runnable task) {
    Thread thread = new Thread(task, name);
    thread.setDaemon(true);
    thread.start();
  }

  @Override
  public void close() {
    ours.countDown();
    channel.close(false);
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
