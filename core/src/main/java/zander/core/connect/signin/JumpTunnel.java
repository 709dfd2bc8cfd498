package zander.core.connect.signin;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetAddress;
import org.apache.sshd.client.channel.ChannelDirectTcpip;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.session.ConnectionService;
import org.apache.sshd.common.util.net.SshdSocketAddress;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.Timeouts;

/**
 * The way through a jump host: a channel of it to the next server (RFC 4254, section 7.2).
 *
 * @param channel open
 */
record JumpTunnel(ChannelDirectTcpip channel) implements LoopbackLine.FarEnd {
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
    through.getService(ConnectionService.class).registerChannel(channel);
    channel.open().verify(Timeouts.OPENING);
    return new JumpTunnel(channel);
  }

  @Override
  public InputStream in() {
    return channel.getInvertedOut();
  }

  @Override
  public OutputStream out() {
    return channel.getInvertedIn();
  }

  @Override
  public void close() {
    channel.close(false);
  }
}
