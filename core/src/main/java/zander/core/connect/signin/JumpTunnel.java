package zander.core.connect.signin;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import org.apache.sshd.client.session.ClientSession;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.TcpChannel;

/**
 * The way through a jump host: a channel of it to the next server.
 *
 * @param channel open
 */
record JumpTunnel(TcpChannel channel) implements LoopbackLine.FarEnd {
  /**
   * Asks the jump host for a line to the next server. Waits for both.
   *
   * @throws IOException when it refuses, or cannot reach the server
   */
  static JumpTunnel open(ClientSession through, ServerAddress next) throws IOException {
    return new JumpTunnel(TcpChannel.open(through, next.host(), next.port()));
  }

  @Override
  public InputStream in() {
    return channel.in();
  }

  @Override
  public OutputStream out() {
    return channel.out();
  }

  @Override
  public void close() {
    channel.close();
  }
}
