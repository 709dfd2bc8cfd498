package zander.core.crossing;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import zander.core.connect.Commands;
import zander.core.connect.Connection;
import zander.core.connect.Tools;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;

/**
 * A crossing's own channels on a desk's connection, so that what a person does beside it does not
 * wait behind its requests. Where the server has no room for another channel, the desk's is shared.
 */
public final class OwnLine implements ServerLine {
  private static final int TRIES = 3;

  private final Supplier<Connection> connection;
  private Connection on;
  private RemoteFiles files;
  private final List<RemoteFiles> lanes = new ArrayList<>();
  private Duration delay;
  private boolean closed;

  /**
   * @param connection the one there is now: another after a line broke and came back
   */
  public OwnLine(Supplier<Connection> connection) {
    this.connection = connection;
  }

  @Override
  public synchronized RemoteFiles files() {
    Connection now = connection.get();
    if (now != on || files == null) {
      close();
      closed = false;
      on = now;
      try {
        files = now.moreFiles();
      } catch (IOException | RuntimeException e) {
        files = now.files();
      }
    }
    return files;
  }

  @Override
  public synchronized List<RemoteFiles> lanes(int most) {
    files();
    while (lanes.size() < most && files != on.files()) {
      try {
        lanes.add(on.moreFiles());
      } catch (IOException | RuntimeException e) {
        break;
      }
    }
    return List.copyOf(lanes.subList(0, Math.min(most, lanes.size())));
  }

  @Override
  public Commands commands() {
    return connection.get();
  }

  @Override
  public Tools tools() throws IOException {
    return connection.get().tools();
  }

  /** The least of some, because one may be late for reasons of its own. */
  @Override
  public synchronized Duration delay() throws IOException {
    if (delay == null) {
      for (int i = 0; i < TRIES; i++) {
        long start = System.nanoTime();
        files().look(RemotePath.ROOT);
        Duration one = Duration.ofNanos(System.nanoTime() - start);
        delay = delay == null || one.compareTo(delay) < 0 ? one : delay;
      }
    }
    return delay;
  }

  @Override
  public synchronized void close() {
    if (closed) {
      return;
    }
    closed = true;
    if (files != null && files != on.files()) {
      files.close();
    }
    lanes.forEach(RemoteFiles::close);
    lanes.clear();
    files = null;
  }
}
