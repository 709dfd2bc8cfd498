package zander.core.connect.channel;

import java.io.Closeable;
import java.io.IOException;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.apache.sshd.client.channel.ClientChannel;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.channel.exception.SshChannelOpenException;
import org.apache.sshd.common.session.ConnectionService;
import org.jspecify.annotations.Nullable;
import zander.core.files.WireName;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.SignInPhrase;

/**
 * The signed-in sessions of one connection: one, and more when the server limits the channels of
 * each (sshd's MaxSessions). Safe for several threads.
 */
public final class SessionPool implements Closeable {
  /** A server that refuses even on fresh sessions allows no commands at all. */
  private static final int MOST = 8;

  private final ClientSession first;
  private final Another another;
  private final List<ClientSession> sessions;

  /** {@code null} where one acts as oneself. */
  private final @Nullable Elevation elevation;

  private volatile boolean closed;

  /** Signs in once more; may ask for a secret again. */
  public interface Another {
    ClientSession signIn() throws IOException;
  }

  public SessionPool(ClientSession first, Another another) {
    this(first, another, new CopyOnWriteArrayList<>(List.of(first)), null);
  }

  private SessionPool(
      ClientSession first,
      Another another,
      List<ClientSession> sessions,
      @Nullable Elevation elevation) {
    this.first = first;
    this.another = another;
    this.sessions = sessions;
    this.elevation = elevation;
  }

  /** The same sessions, for what is run as another account. */
  public SessionPool actingBy(Elevation right) {
    return new SessionPool(first, another, sessions, right);
  }

  /** By what right another account is acted as; {@code null} for none. */
  public @Nullable Elevation elevation() {
    return elevation;
  }

  public ClientSession first() {
    return first;
  }

  /** A number that changes with everything that arrives on any of them. */
  public int arrivals() {
    return sessions.stream()
        .mapToInt(one -> one instanceof GuardedSession session ? session.arrivals() : 0)
        .sum();
  }

  public int count() {
    return sessions.size();
  }

  /** What to do with a channel before it is opened. */
  public interface Setting<C extends ClientChannel> {
    void apply(C channel);
  }

  /** Makes a channel that was not opened yet: another for each session that is tried. */
  public interface Making<C extends ClientChannel> {
    C make();
  }

  /** Opens something on one session. */
  public interface Opening<T> {
    T open(ClientSession session) throws IOException;
  }

  /** Opens a channel on a session that has room for it; signs in once more where none has. */
  public <C extends ClientChannel> C open(Making<C> making, Setting<C> set) throws IOException {
    return withRoom(session -> open(session, making, set));
  }

  /** The same for what opens its channel itself. */
  public <T> T withRoom(Opening<T> opening) throws IOException {
    SshChannelOpenException full = null;
    for (ClientSession session : sessions) {
      try {
        return opening.open(session);
      } catch (IOException e) {
        full = refusedOf(e);
        if (full == null) {
          throw e;
        }
      }
    }
    return opening.open(more(full));
  }

  /**
   * Opens a stream for a command, without signing in once more when all sessions are full.
   *
   * @throws SshChannelOpenException when no session has room
   */
  public StreamChannel openIfRoom(String wireCommand, Setting<StreamChannel> set)
      throws IOException {
    SshChannelOpenException full = null;
    for (ClientSession session : sessions) {
      try {
        return open(session, () -> new StreamChannel(WireName.bytes(wireCommand)), set);
      } catch (SshChannelOpenException e) {
        full = e;
      }
    }
    throw full == null ? new ExplainedException(SignInPhrase.CLOSED.of()) : full;
  }

  private static <C extends ClientChannel> C open(
      ClientSession session, Making<C> making, Setting<C> set) throws IOException {
    C channel = making.make();
    try {
      session.getService(ConnectionService.class).registerChannel(channel);
    } catch (IllegalStateException e) {
      throw new ExplainedException(SignInPhrase.CLOSED.of(), e);
    }
    opened(channel, set);
    return channel;
  }

  private static <C extends ClientChannel> void opened(C channel, Setting<C> set)
      throws IOException {
    set.apply(channel);
    try {
      channel.open().verify(Timeouts.OPENING);
    } catch (IOException e) {
      channel.close(true);
      SshChannelOpenException refused = refusedOf(e);
      throw refused == null ? e : refused;
    }
  }

  /** That the server has no room on a session; {@code null} when it is something else. */
  private static @Nullable SshChannelOpenException refusedOf(IOException e) {
    for (Throwable at = e; at != null; at = at.getCause()) {
      if (at instanceof SshChannelOpenException refused) {
        return refused;
      }
    }
    return null;
  }

  /**
   * Signs in once more for something of its own; that session ends with the first at the latest.
   */
  public ClientSession apart() throws IOException {
    ClientSession made = another.signIn();
    first.addCloseFutureListener(ended -> made.close(true));
    return made;
  }

  private synchronized ClientSession more(@Nullable SshChannelOpenException full)
      throws IOException {
    if (closed || !first.isOpen() || sessions.size() >= MOST) {
      throw full == null ? new ExplainedException(SignInPhrase.CLOSED.of()) : full;
    }
    ClientSession made = another.signIn();
    sessions.add(made);
    made.addCloseFutureListener(ended -> sessions.remove(made));
    if (closed || !first.isOpen()) {
      made.close(true);
      throw new ExplainedException(SignInPhrase.CLOSED.of());
    }
    return made;
  }

  /** Of those acting as another, the right alone ends: the sessions are not theirs. */
  @Override
  public void close() {
    closed = true;
    if (elevation != null) {
      elevation.close();
      return;
    }
    sessions.forEach(session -> session.close(false));
  }

  /** Ends all at once, without a word to the server. */
  public void drop() {
    closed = true;
    if (elevation != null) {
      elevation.close();
    }
    sessions.forEach(session -> session.close(true));
  }
}
