package zander.core.connect.channel;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import org.apache.sshd.client.channel.ChannelDirectTcpip;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.channel.ChannelPipedInputStream;
import org.apache.sshd.common.session.ConnectionService;
import org.apache.sshd.common.util.net.SshdSocketAddress;

/**
 * A connection that the server makes to a port which it can reach (RFC 4254, section 7.2). Nothing
 * on this computer listens for it.
 */
public final class TcpChannel implements Closeable {
  private final ChannelDirectTcpip channel;

  private TcpChannel(ChannelDirectTcpip channel) {
    this.channel = channel;
  }

  /**
   * Asks the server for it. Waits for both.
   *
   * @param host as the server knows it
   * @throws IOException when the server refuses, or cannot reach that port, caused by an {@link
   *     org.apache.sshd.common.channel.exception.SshChannelOpenException}
   */
  public static TcpChannel open(ClientSession through, String host, int port) throws IOException {
    ChannelDirectTcpip channel =
        new ChannelDirectTcpip(
            new SshdSocketAddress(InetAddress.getLoopbackAddress().getHostAddress(), 0),
            new SshdSocketAddress(host, port)) {
          @Override
          public void handleEof() throws IOException {
            super.handleEof();
            // Whoever reads learns of the end with the last byte, and not when all is closed.
            if (getInvertedOut() instanceof ChannelPipedInputStream in) {
              in.eof();
            }
          }
        };
    through.getService(ConnectionService.class).registerChannel(channel);
    channel.open().verify(Timeouts.OPENING);
    return new TcpChannel(channel);
  }

  /** What comes from there. */
  public InputStream in() {
    return channel.getInvertedOut();
  }

  /** What goes there. */
  public OutputStream out() {
    return channel.getInvertedIn();
  }

  @Override
  public void close() {
    channel.close(false);
  }
}
