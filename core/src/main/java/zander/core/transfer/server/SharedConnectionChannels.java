package zander.core.transfer.server;

import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import zander.core.connect.AccountIdentity;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ServerTools;
import zander.core.files.RemoteFiles;
import zander.core.transfer.endpoint.Direction;

/**
 * The channels of transfers on a desk's connection, so that what a person does beside them does not
 * wait behind their requests. Where the server has no room for another channel, the desk's is
 * shared.
 */
public final class SharedConnectionChannels implements ServerChannels {
  private final Supplier<Connection> connection;
  private final @Nullable String name;

  /**
   * @param connection the one there is now: another after a line broke and came back
   */
  public SharedConnectionChannels(Supplier<Connection> connection) {
    this(connection, null);
  }

  /**
   * @param name what people know the server by; {@code null} for its host's name
   */
  public SharedConnectionChannels(Supplier<Connection> connection, @Nullable String name) {
    this.connection = connection;
    this.name = name;
  }

  @Override
  public RemoteFiles files() {
    Connection now = connection.get();
    List<RemoteFiles> own = now.moreFiles(1);
    return own.isEmpty() ? now.files() : own.get(0);
  }

  @Override
  public List<RemoteFiles> lanes(int most) {
    if (most == 0) {
      return List.of();
    }
    List<RemoteFiles> all = connection.get().moreFiles(1 + most);
    return all.subList(Math.min(1, all.size()), all.size());
  }

  @Override
  public Commands commands() {
    return connection.get();
  }

  @Override
  public ServerTools tools() throws IOException {
    return connection.get().tools();
  }

  @Override
  public AccountIdentity whoAmI() {
    return connection.get().whoAmI();
  }

  @Override
  public Connection connection() {
    return connection.get();
  }

  @Override
  public CompressionPolicy compression(Direction way) {
    return connection
        .get()
        .learnt("squeeze " + way, CompressionPolicy.class, CompressionPolicy::new);
  }

  @Override
  public String host() {
    return name == null ? connection.get().address().host() : name;
  }

  @Override
  public Duration delay() throws IOException {
    return connection.get().leastDelay();
  }
}
