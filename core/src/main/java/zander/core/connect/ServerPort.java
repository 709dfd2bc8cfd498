package zander.core.connect;

import java.io.IOException;
import org.apache.sshd.common.channel.exception.SshChannelOpenException;
import zander.core.connect.channel.TcpChannel;
import zander.core.files.RemoteFailure;
import zander.core.phrase.FileStep;
import zander.core.work.BlockingCalls;

/** Ports that a server can reach, reached over the connection to it. */
public final class ServerPort {
  /** RFC 4254, section 5.1. */
  private static final int ADMINISTRATIVELY_PROHIBITED = 1;

  private ServerPort() {}

  /** Why the server did not lead there. */
  public static final class Refused extends IOException {
    private final boolean forbidden;

    private Refused(boolean forbidden, SshChannelOpenException said) {
      super(said.getMessage(), said);
      this.forbidden = forbidden;
    }

    /** Whether it does not forward for this account; else it could not reach that port. */
    public boolean isForbidden() {
      return forbidden;
    }
  }

  /**
   * Connects to a port by way of the server, as the account that signed in. Waits.
   *
   * @param host as the server knows it
   * @throws Refused when the server does not lead there
   * @throws RemoteFailure with {@code LINE_LOST} when the connection to the server is gone
   */
  public static TcpChannel connect(Connection through, String host, int port) throws IOException {
    BlockingCalls.check("a port of the server");
    try {
      return TcpChannel.open(through.session, host, port);
    } catch (IOException e) {
      // The library wraps what the server said into what it did not do.
      if (e.getCause() instanceof SshChannelOpenException said) {
        throw new Refused(said.getReasonCode() == ADMINISTRATIVELY_PROHIBITED, said);
      }
      if (through.session.isOpen()) {
        throw e;
      }
      throw new RemoteFailure(RemoteFailure.Reason.LINE_LOST, FileStep.REACH_A_PORT, null, "", e);
    }
  }
}
