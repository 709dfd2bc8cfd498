package zander.bench;

import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Path;
import java.util.List;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInMethods;
import zander.core.trust.KnownHosts;

/** A session with the loopback's server over a line with a delay. */
final class FarSession implements AutoCloseable {
  private final DelayedLine line;
  private final Connector connector;
  private final Connection connection;

  /**
   * @param delay the round trip, in milliseconds
   * @param known for the server's key; of this session's own
   */
  FarSession(LoopbackSshd sshd, long delay, Path known) throws IOException {
    line = new DelayedLine(sshd.port(), delay);
    connector =
        new Connector(
            new KnownHosts(known),
            address ->
                List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), line.port())));
    connection =
        connector.open(
            new ServerAddress("root", "localhost", line.port()),
            SignInMethods.byKey(sshd.key()),
            FirstSlice.TRUSTING);
  }

  Connection connection() {
    return connection;
  }

  /** Where the line begins. */
  int port() {
    return line.port();
  }

  @Override
  public void close() throws IOException {
    connection.close();
    connector.close();
    line.close();
  }
}
