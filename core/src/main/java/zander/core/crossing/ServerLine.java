package zander.core.crossing;

import java.io.IOException;
import java.time.Duration;
import java.util.List;
import zander.core.connect.Commands;
import zander.core.connect.Connection;
import zander.core.connect.Lending;
import zander.core.connect.Tools;
import zander.core.connect.WhoAmI;
import zander.core.files.RemoteFiles;

/** What a crossing uses of a server's connection. Methods wait; several threads may call them. */
public interface ServerLine {
  /** The file service there is now: another one after a line broke and came back. */
  RemoteFiles files() throws IOException;

  /** Further channels of the file service, as far as the server has room for them. */
  List<RemoteFiles> lanes(int most) throws IOException;

  Commands commands();

  /** {@link Tools#NONE} where there is no shell. */
  Tools tools() throws IOException;

  /** Who one is there; {@code null} where that is not known. */
  WhoAmI whoAmI();

  /** What people know the server by. */
  default String host() {
    return "the server";
  }

  /** The connection there is now; {@code null} where there is nothing but a file service. */
  default Connection connection() {
    return null;
  }

  /** Why this server cannot be lent the key of another; {@code null} when it can. */
  default String whyNotLend(ServerLine goal) throws IOException {
    return connection() == null || goal.connection() == null
        ? "there is no shell"
        : connection().whyNotLend(goal.connection(), host(), goal.host());
  }

  /** Lends this server the key of another, for signing in there. */
  default Lending lend(ServerLine goal) throws IOException {
    return connection().lend(goal.connection());
  }

  /** What is known of whether compressing pays that way. */
  default Squeeze squeeze(Direction way) {
    return new Squeeze();
  }

  /** The time of one round trip. */
  Duration delay() throws IOException;

  /** A line of nothing but one file service, which stays open. */
  static ServerLine of(RemoteFiles files) {
    return new ServerLine() {
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
        throw new IllegalStateException("no shell");
      }

      @Override
      public Tools tools() {
        return Tools.NONE;
      }

      @Override
      public WhoAmI whoAmI() {
        return null;
      }

      @Override
      public Duration delay() {
        return Duration.ZERO;
      }
    };
  }
}
