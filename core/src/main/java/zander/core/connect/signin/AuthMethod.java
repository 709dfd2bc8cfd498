package zander.core.connect.signin;

import java.util.function.Function;
import org.apache.sshd.client.auth.AbstractUserAuth;
import org.apache.sshd.client.auth.AbstractUserAuthFactory;
import org.apache.sshd.client.auth.UserAuth;
import org.apache.sshd.client.auth.UserAuthFactory;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.util.buffer.Buffer;

/** A method of signing in (RFC 4252, section 5) for one attempt. */
public abstract class AuthMethod extends AbstractUserAuth {
  protected final SignInAttempt attempt;

  AuthMethod(String name, SignInAttempt attempt) {
    super(name);
    this.attempt = attempt;
  }

  /** Makes the method for each attempt. */
  public static UserAuthFactory factory(String name, Function<SignInAttempt, AuthMethod> made) {
    return new AbstractUserAuthFactory(name) {
      @Override
      public UserAuth createUserAuth(ClientSession session) {
        return made.apply(SignInAttempt.of(session));
      }
    };
  }

  /** The beginning of a request: account, service, and the method's name. */
  static Buffer request(ClientSession session, String service, String method) {
    Buffer request = session.createBuffer(SshConstants.SSH_MSG_USERAUTH_REQUEST, 256);
    request.putString(session.getUsername());
    request.putString(service);
    request.putString(method);
    return request;
  }
}
