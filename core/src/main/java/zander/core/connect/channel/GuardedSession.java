package zander.core.connect.channel;

import java.io.EOFException;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.SocketAddress;
import java.time.Instant;
import java.util.HashSet;
import java.util.Set;
import org.apache.sshd.client.ClientFactoryManager;
import org.apache.sshd.client.session.ClientSessionImpl;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.io.AbstractIoWriteFuture;
import org.apache.sshd.common.io.IoSession;
import org.apache.sshd.common.io.IoWriteFuture;
import org.apache.sshd.common.util.Readable;
import org.apache.sshd.common.util.buffer.Buffer;
import org.jspecify.annotations.Nullable;

/**
 * A session that knows its server by its name, which host certificates are compared with, and that
 * sends nothing on a channel after its CLOSE (RFC 4254, section 5.3). The library looks whether a
 * channel is open and sends in two steps; what another thread sent between them would name a
 * channel that is gone, for which the system's {@code sshd} ends the whole connection.
 */
public final class GuardedSession extends ClientSessionImpl {
  /** Half of what a packet carries at most. */
  private static final int AT_ONCE = 16 * 1024;

  /** The server's numbers of channels that were closed here; guarded by the lock on encoding. */
  private final Set<Long> closed = new HashSet<>();

  /** Counts what arrives; one thread at a time reads. */
  private volatile int arrivals;

  private final Instant opened = Instant.now();

  /**
   * The server as it was asked for; {@code null} for its network address. Has no initial value,
   * because it is given while the library's constructor runs.
   */
  private volatile @Nullable InetSocketAddress name;

  public GuardedSession(ClientFactoryManager client, IoSession line) throws Exception {
    super(client, line);
  }

  /** The name that host certificates are compared with. */
  public void callServer(InetSocketAddress unresolved) {
    name = unresolved;
  }

  @Override
  public SocketAddress getConnectAddress() {
    return name == null ? super.getConnectAddress() : name;
  }

  /** Nothing here ends for being idle, and reading the clock for each packet takes its time. */
  @Override
  public Instant resetIdleTimeout() {
    return opened;
  }

  /**
   * The library moves everything that it has not decoded yet to the front after each packet; so it
   * is given little at a time.
   */
  @Override
  @SuppressWarnings("NonAtomicOperationOnVolatileField")
  public void messageReceived(Readable arrived) throws Exception {
    arrivals++;
    while (arrived.available() > AT_ONCE) {
      super.messageReceived(new Front(arrived, AT_ONCE));
    }
    super.messageReceived(arrived);
  }

  /** A number that changes with everything that arrives. */
  int arrivals() {
    return arrivals;
  }

  /** As much of something as is asked for, taken from its front. */
  private record Front(Readable whole, int available) implements Readable {
    @Override
    public void getRawBytes(byte[] into, int offset, int length) {
      whole.getRawBytes(into, offset, length);
    }
  }

  @Override
  protected IoWriteFuture doWritePacket(Buffer buffer) throws IOException {
    int message = buffer.array()[buffer.rpos()] & 0xff;
    if (message < SshConstants.SSH_MSG_CHANNEL_OPEN_CONFIRMATION
        || message > SshConstants.SSH_MSG_CHANNEL_FAILURE) {
      return super.doWritePacket(buffer);
    }
    long channel = uint(buffer, 1);
    encodeLock.lock();
    try {
      if (message == SshConstants.SSH_MSG_CHANNEL_OPEN_CONFIRMATION) {
        closed.remove(channel);
      } else if (closed.contains(channel)) {
        return AbstractIoWriteFuture.fulfilled(
            toString(), new EOFException("the channel is closed"));
      } else if (message == SshConstants.SSH_MSG_CHANNEL_CLOSE) {
        closed.add(channel);
      }
      return super.doWritePacket(buffer);
    } finally {
      encodeLock.unlock();
    }
  }

  @Override
  protected void handleMessage(Buffer buffer) throws Exception {
    if (buffer.available() >= 9
        && (buffer.array()[buffer.rpos()] & 0xff)
            == SshConstants.SSH_MSG_CHANNEL_OPEN_CONFIRMATION) {
      // A number that was free again is given to another channel.
      encodeLock.lock();
      try {
        closed.remove(uint(buffer, 5));
      } finally {
        encodeLock.unlock();
      }
    }
    super.handleMessage(buffer);
  }

  private static long uint(Buffer buffer, int after) {
    byte[] bytes = buffer.array();
    int at = buffer.rpos() + after;
    return (bytes[at] & 0xffL) << 24
        | (bytes[at + 1] & 0xffL) << 16
        | (bytes[at + 2] & 0xffL) << 8
        | (bytes[at + 3] & 0xffL);
  }
}
