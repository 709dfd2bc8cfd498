package zander.core.page;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.util.function.Supplier;
import zander.core.connect.Connection;
import zander.core.connect.ServerPort;
import zander.core.connect.address.HostLookup;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.TcpChannel;

/**
 * The ways to a page from a desk. A page is public, or known in the server's network alone, or
 * served on a port that the server has for itself.
 *
 * @param lookup finds computers by name from here
 * @param connection gives the one there is now
 */
public record PageRoutes(HostLookup lookup, Supplier<Connection> connection) {
  /** How long a computer may take to answer, in milliseconds. */
  private static final int PATIENCE = 5_000;

  /** Finding a computer takes an account that nobody signs in to. */
  private static final String NO_ACCOUNT = "nobody";

  /** What people choose from. */
  public enum Way {
    /** From here, and where that does not lead to it, through the server. */
    EITHER,
    FROM_HERE,
    THROUGH_SERVER,
    /** To the server's own loopback, whatever host the address names. */
    ON_SERVER
  }

  public PageRoute by(Way way) {
    return switch (way) {
      case FROM_HERE -> this::fromHere;
      case THROUGH_SERVER -> this::throughServer;
      case ON_SERVER -> (host, port) -> throughServer("127.0.0.1", port);
      case EITHER -> new Either();
    };
  }

  /** What led to it once does so again: nobody waits for the other for each part of a page. */
  private final class Either implements PageRoute {
    private volatile boolean isThrough;

    @Override
    public Line connect(String host, int port) throws IOException {
      if (!isThrough) {
        try {
          return fromHere(host, port);
        } catch (IOException e) {
          Line line = throughServer(host, port);
          isThrough = true;
          return line;
        }
      }
      return throughServer(host, port);
    }
  }

  private PageRoute.Line fromHere(String host, int port) throws IOException {
    IOException last = null;
    for (InetSocketAddress one : lookup.find(new ServerAddress(NO_ACCOUNT, host, port))) {
      Socket socket = new Socket();
      try {
        socket.connect(one, PATIENCE);
        socket.setTcpNoDelay(true);
        return new SocketLine(socket, socket.getInputStream(), socket.getOutputStream());
      } catch (IOException e) {
        socket.close();
        last = e;
      }
    }
    throw last == null ? new IOException(host) : last;
  }

  private PageRoute.Line throughServer(String host, int port) throws IOException {
    return new ChannelLine(ServerPort.connect(connection.get(), host, port));
  }

  private record SocketLine(Socket socket, InputStream in, OutputStream out)
      implements PageRoute.Line {
    @Override
    public void close() {
      try {
        socket.close();
      } catch (IOException e) {
        // Gone is what it is to be.
      }
    }
  }

  private record ChannelLine(TcpChannel channel) implements PageRoute.Line {
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
}
