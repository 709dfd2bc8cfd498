package zander.core.connect.channel;

import java.io.IOException;
import java.util.Map;
import org.apache.sshd.client.channel.ChannelExec;
import org.apache.sshd.common.channel.PtyChannelConfigurationHolder;
import org.jspecify.annotations.Nullable;

/** A channel for a command, which knows what its server said to each request. */
public class CommandChannel extends ChannelExec {
  private final ChannelRequestReplies answers =
      new ChannelRequestReplies(() -> isClosing() || isClosed());

  /**
   * @param command as bytes
   * @param pty a terminal, or {@code null}
   */
  public CommandChannel(
      byte[] command, @Nullable PtyChannelConfigurationHolder pty, Map<String, ?> env) {
    super(command, pty, env);
    addCloseFutureListener(closed -> answers.ended());
  }

  @Override
  protected void doOpenPty() throws IOException {
    boolean wanted = isUsePty();
    setUsePty(false);
    super.doOpenPty();
    setUsePty(wanted);
    if (wanted) {
      writePacket(answers.terminalRequest(this));
    }
    answers.expect(CHANNEL_EXEC);
  }

  @Override
  public void handleSuccess() throws IOException {
    answers.granted();
    super.handleSuccess();
  }

  @Override
  public void handleFailure() throws IOException {
    answers.refused();
    close(false);
  }

  public ChannelRequestReplies answers() {
    return answers;
  }
}
