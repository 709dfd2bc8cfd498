package zander.core.connect.channel;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.function.BooleanSupplier;
import org.apache.sshd.client.channel.PtyCapableChannelSession;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.channel.PtyMode;
import org.apache.sshd.common.util.buffer.Buffer;
import org.jspecify.annotations.Nullable;

/**
 * What a server answers to the requests on a channel, in their order (RFC 4254, section 5.4). The
 * library asks for a terminal without wanting to know whether there is one, and drops a channel
 * whose command was refused without ending it at the server.
 */
public final class ChannelRequestReplies {
  private static final String PTY = "pty-req";

  private final Deque<String> unanswered = new ArrayDeque<>();
  private final BooleanSupplier over;
  private @Nullable String refused;

  /**
   * @param over whether the channel has ended, so that no answer comes any more
   */
  ChannelRequestReplies(BooleanSupplier over) {
    this.over = over;
  }

  synchronized void expect(String request) {
    unanswered.addLast(request);
  }

  synchronized void granted() {
    unanswered.pollFirst();
    notifyAll();
  }

  synchronized void refused() {
    String request = unanswered.pollFirst();
    if (refused == null) {
      refused = request == null ? "" : request;
    }
    notifyAll();
  }

  synchronized void ended() {
    notifyAll();
  }

  public synchronized boolean isAnyRefused() {
    return refused != null;
  }

  public synchronized boolean isTerminalRefused() {
    return PTY.equals(refused);
  }

  /**
   * Waits until all are answered, one is refused, or the channel has ended.
   *
   * @return false when that took longer
   */
  public synchronized boolean await(Duration patience) throws IOException {
    long end = System.nanoTime() + patience.toNanos();
    try {
      while (refused == null && !unanswered.isEmpty() && !over.getAsBoolean()) {
        long left = (end - System.nanoTime()) / 1_000_000;
        if (left <= 0) {
          return false;
        }
        wait(left);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
    return true;
  }

  /** Asks for the terminal that a channel is set up with, and for an answer. */
  Buffer terminalRequest(PtyCapableChannelSession channel) {
    Buffer request = channel.getSession().createBuffer(SshConstants.SSH_MSG_CHANNEL_REQUEST, 128);
    request.putUInt(channel.getRecipient());
    request.putString(PTY);
    request.putBoolean(true);
    request.putString(channel.getPtyType());
    request.putInt(channel.getPtyColumns());
    request.putInt(channel.getPtyLines());
    request.putInt(channel.getPtyHeight());
    request.putInt(channel.getPtyWidth());
    request.putBytes(new byte[] {PtyMode.TTY_OP_END});
    expect(PTY);
    return request;
  }
}
