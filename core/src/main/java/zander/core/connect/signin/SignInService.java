package zander.core.connect.signin;

import java.io.IOException;
import java.util.List;
import org.apache.sshd.client.future.AuthFuture;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.client.session.ClientUserAuthService;
import org.apache.sshd.client.session.ClientUserAuthServiceFactory;
import org.apache.sshd.common.Service;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.io.IoWriteFuture;
import org.apache.sshd.common.session.Session;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import org.jspecify.annotations.Nullable;

/**
 * The sign-in of RFC 4252 as the library drives it, with two changes: the first request is the
 * first proof itself and not the empty {@code none}, which saves a round trip; and each answer of
 * the server is noted.
 */
public final class SignInService extends ClientUserAuthService {
  private final SignInAttempt attempt;

  private SignInService(Session session) {
    super(session);
    this.attempt = SignInAttempt.of(session);
  }

  /** Makes the service for a session. */
  public static final class Factory extends ClientUserAuthServiceFactory {
    @Override
    public Service create(Session session) {
      return new SignInService(session);
    }
  }

  @Override
  protected @Nullable IoWriteFuture sendInitialAuthRequest(ClientSession session, String service)
      throws IOException {
    if (attempt.hasReadyOffer() && PublicKeyAuth.sendNext(attempt, session, service)) {
      return null;
    }
    return super.sendInitialAuthRequest(session, service);
  }

  @Override
  public void process(int command, Buffer buffer) throws Exception {
    if (command == SshConstants.SSH_MSG_USERAUTH_BANNER) {
      // RFC 4252, section 5.4: for the person, before or while they sign in.
      attempt.banner(KeyboardInteractiveAuth.clean(buffer.getString()));
      return;
    }
    super.process(command, buffer);
  }

  @Override
  protected void processUserAuth(int command, Buffer buffer, AuthFuture future) throws Exception {
    if (command == SshConstants.SSH_MSG_USERAUTH_FAILURE) {
      Buffer copy = new ByteArrayBuffer(buffer.getCompactData());
      attempt.refused(List.of(copy.getString().split(",")), copy.getBoolean());
    } else if (command == SshConstants.SSH_MSG_USERAUTH_SUCCESS) {
      attempt.accepted();
    }
    super.processUserAuth(command, buffer, future);
  }
}
