package zander.core.connect.channel;

import java.io.IOException;
import java.util.Map;
import org.apache.sshd.client.channel.ChannelShell;
import org.apache.sshd.common.channel.PtyChannelConfigurationHolder;

/**
 * A channel for the account's own shell as the server starts it (RFC 4254, section 6.5): for
 * accounts whose shell runs no scripts, and servers that run nothing else.
 */
public final class LoginShellChannel extends ChannelShell {
  private final ChannelRequestReplies answers =
      new ChannelRequestReplies(() -> isClosing() || isClosed());

  public LoginShellChannel(PtyChannelConfigurationHolder pty, Map<String, ?> env) {
    super(pty, env);
    addCloseFutureListener(closed -> answers.ended());
  }

  @Override
  protected void doOpenPty() throws IOException {
    setUsePty(false);
    super.doOpenPty();
    setUsePty(true);
    writePacket(answers.terminalRequest(this));
    answers.expect(CHANNEL_SHELL);
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
