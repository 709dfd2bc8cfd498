package zander.core.transfer.server;

import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import zander.core.connect.AccountIdentity;
import zander.core.connect.AgentLoan;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ServerTools;
import zander.core.files.RemoteFiles;
import zander.core.phrase.CarrierPhrase;
import zander.core.phrase.Phrase;
import zander.core.transfer.endpoint.Direction;

/** What a transfer uses of a server's connection. Methods wait; several threads may call them. */
public interface ServerChannels {
  /** The file service there is now: another one after a line broke and came back. */
  RemoteFiles files() throws IOException;

  /** Further channels of the file service, as far as the server has room for them. */
  List<RemoteFiles> lanes(int most) throws IOException;

  /** {@link Commands#NONE} where there is nothing but a file service. */
  Commands commands();

  /** {@link ServerTools#NONE} where there is no shell. */
  ServerTools tools() throws IOException;

  /** Who one is there; {@code null} where that is not known. */
  @Nullable AccountIdentity whoAmI();

  /** What people know the server by. */
  default String host() {
    return "the server";
  }

  /** The connection there is now; {@code null} where there is nothing but a file service. */
  default @Nullable Connection connection() {
    return null;
  }

  /** Why this server cannot be lent the key of another; {@code null} when it can. */
  default @Nullable Phrase whyNotLend(ServerChannels goal) throws IOException {
    Connection own = connection();
    Connection other = goal.connection();
    return own == null || other == null
        ? CarrierPhrase.NO_SHELL.of()
        : own.whyNotLend(other, host(), goal.host());
  }

  /** Lends this server the key of another, for signing in there. */
  default AgentLoan lend(ServerChannels goal) throws IOException {
    return Objects.requireNonNull(connection()).lend(Objects.requireNonNull(goal.connection()));
  }

  /** What is known of whether compressing pays that way. */
  default CompressionPolicy compression(Direction way) {
    return new CompressionPolicy();
  }

  /** The time of one round trip. */
  Duration delay() throws IOException;

  /** A line of nothing but one file service, which stays open. */
  static ServerChannels of(RemoteFiles files) {
    return new ServerChannels() {
      @Override
      public RemoteFiles files() {
        return files;
      }

      @Override
      public List<RemoteFiles> lanes(int most) {
        return List.of();
      }

      @Override
      public Commands commands() {
        return Commands.NONE;
      }

      @Override
      public ServerTools tools() {
        return ServerTools.NONE;
      }

      @Override
      public @Nullable AccountIdentity whoAmI() {
        return null;
      }

      @Override
      public Duration delay() {
        return Duration.ZERO;
      }
    };
  }
}
