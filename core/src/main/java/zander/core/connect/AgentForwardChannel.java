package zander.core.connect;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.io.OutputStream;
import java.util.Collections;
import java.util.concurrent.CompletableFuture;
import org.apache.sshd.client.future.DefaultOpenFuture;
import org.apache.sshd.client.future.OpenFuture;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.channel.Channel;
import org.apache.sshd.common.channel.ChannelFactory;
import org.apache.sshd.common.channel.ChannelOutputStream;
import org.apache.sshd.common.channel.exception.SshChannelOpenException;
import org.apache.sshd.common.session.Session;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import org.apache.sshd.server.channel.AbstractServerChannel;
import org.jspecify.annotations.Nullable;

/**
 * A connection to the agent that a server opens to here. Refused on every session but one that a
 * key was lent to.
 */
final class AgentForwardChannel extends AbstractServerChannel {
  private static final String TYPE = "auth-agent@openssh.com";

  /** {@code null} where nothing is lent, and the channel will not be opened. */
  private final SingleHostAgent.@Nullable Talk talk;

  private @Nullable OutputStream out;
  private final ByteArrayBuffer gathered = new ByteArrayBuffer();

  /** One answer after the other: a signature may take a person's word. */
  private CompletableFuture<Void> answering = CompletableFuture.completedFuture(null);

  private AgentForwardChannel(SingleHostAgent.@Nullable Talk talk) {
    super("", Collections.emptyList(), null);
    this.talk = talk;
  }

  static ChannelFactory factory() {
    return new ChannelFactory() {
      @Override
      public String getName() {
        return TYPE;
      }

      @Override
      public Channel createChannel(Session session) {
        SingleHostAgent lent = session.getAttribute(AgentLoan.LENT);
        return new AgentForwardChannel(lent == null ? null : lent.new Talk());
      }
    };
  }

  @Override
  protected OpenFuture doInit(Buffer buffer) {
    OpenFuture opened = new DefaultOpenFuture(this, this);
    if (talk == null) {
      SshChannelOpenException refused =
          new SshChannelOpenException(
              getChannelId(),
              SshConstants.SSH_OPEN_ADMINISTRATIVELY_PROHIBITED,
              "no key is lent to this session");
      signalChannelOpenFailure(refused);
      opened.setException(refused);
      return opened;
    }
    out =
        new ChannelOutputStream(
            this, getRemoteWindow(), log, SshConstants.SSH_MSG_CHANNEL_DATA, true);
    signalChannelOpenSuccess();
    opened.setOpened();
    return opened;
  }

  @Override
  protected void doWriteData(byte[] data, int offset, long length) throws IOException {
    gathered.putRawBytes(data, offset, (int) length);
    getLocalWindow().release(length);
    while (gathered.available() >= Integer.BYTES) {
      long size = gathered.rawUInt(gathered.rpos());
      if (size < 1 || size > SingleHostAgent.LONGEST) {
        close(true);
        return;
      }
      if (gathered.available() < Integer.BYTES + size) {
        break;
      }
      byte[] request = gathered.getBytes();
      answering = answering.thenRunAsync(() -> answer(request));
    }
    gathered.compact();
  }

  private void answer(byte[] request) {
    ByteArrayBuffer message = new ByteArrayBuffer();
    OutputStream to = requireNonNull(out, "the channel is open");
    message.putBytes(requireNonNull(talk).answer(request));
    try {
      to.write(message.array(), message.rpos(), message.available());
      to.flush();
    } catch (IOException e) {
      close(false);
    }
  }

  @Override
  protected void doWriteExtendedData(byte[] data, int offset, long length) throws IOException {
    throw new IOException("no error stream is expected here");
  }

  @Override
  public void handleEof() throws IOException {
    super.handleEof();
    answering.thenRun(() -> close(false));
  }
}
