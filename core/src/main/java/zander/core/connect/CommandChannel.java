package zander.core.connect;

import java.io.IOException;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.Map;
import org.apache.sshd.client.channel.ChannelExec;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.channel.PtyChannelConfigurationHolder;
import org.apache.sshd.common.channel.PtyMode;
import org.apache.sshd.common.util.buffer.Buffer;

/**
 * A channel for a command whose requests are answered (RFC 4254, section 5.4): the library asks for
 * a terminal without wanting to know whether there is one, and drops a channel whose command was
 * refused without ending it at the server.
 */
class CommandChannel extends ChannelExec {
  private static final String PTY = "pty-req";

  private final Deque<String> unanswered = new ArrayDeque<>();
  private String refused;

  /**
   * @param command as bytes
   * @param pty a terminal, or {@code null}
   */
  CommandChannel(byte[] command, PtyChannelConfigurationHolder pty, Map<String, ?> env) {
    super(command, pty, env);
    addCloseFutureListener(closed -> wake());
  }

  private synchronized void wake() {
    notifyAll();
  }

  @Override
  protected void doOpenPty() throws IOException {
    boolean wanted = isUsePty();
    setUsePty(false);
    super.doOpenPty();
    setUsePty(wanted);
    if (wanted) {
      Buffer request = getSession().createBuffer(SshConstants.SSH_MSG_CHANNEL_REQUEST, 128);
      request.putUInt(getRecipient());
      request.putString(PTY);
      request.putBoolean(true);
      request.putString(getPtyType());
      request.putInt(getPtyColumns());
      request.putInt(getPtyLines());
      request.putInt(getPtyHeight());
      request.putInt(getPtyWidth());
      request.putBytes(new byte[] {PtyMode.TTY_OP_END});
      expect(PTY);
      writePacket(request);
    }
    expect(CHANNEL_EXEC);
  }

  private synchronized void expect(String request) {
    unanswered.addLast(request);
  }

  @Override
  public void handleSuccess() throws IOException {
    synchronized (this) {
      unanswered.pollFirst();
      notifyAll();
    }
    super.handleSuccess();
  }

  @Override
  public void handleFailure() throws IOException {
    synchronized (this) {
      String request = unanswered.pollFirst();
      if (refused == null) {
        refused = request == null ? CHANNEL_EXEC : request;
      }
      notifyAll();
    }
    close(false);
  }

  /** Whether the server said no to running the command, or to the terminal. */
  synchronized boolean isRefused() {
    return refused != null;
  }

  synchronized boolean isTerminalRefused() {
    return PTY.equals(refused);
  }

  /**
   * Waits until all requests are answered, one is refused, or the channel has ended.
   *
   * @return false when that took longer
   */
  synchronized boolean awaitAnswers(Duration patience) throws IOException {
    long end = System.nanoTime() + patience.toNanos();
    try {
      while (refused == null && !unanswered.isEmpty() && !isClosing() && !isClosed()) {
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
}
