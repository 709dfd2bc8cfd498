package zander.core.connect;

import org.apache.sshd.client.auth.AbstractUserAuth;
import org.apache.sshd.client.auth.AbstractUserAuthFactory;
import org.apache.sshd.client.auth.UserAuth;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.util.buffer.Buffer;
import zander.core.work.Letters;

/**
 * The {@code password} method of RFC 4252, section 8. The library's own keeps passwords as strings,
 * which cannot be wiped; this one sends them from bytes and wipes those.
 */
final class PasswordProof extends AbstractUserAuth {
  static final String NAME = "password";

  private final Attempt attempt;

  private PasswordProof(Attempt attempt) {
    super(NAME);
    this.attempt = attempt;
  }

  /** Makes the method for one attempt to sign in. */
  static final class Factory extends AbstractUserAuthFactory {
    Factory() {
      super(NAME);
    }

    @Override
    public UserAuth createUserAuth(ClientSession session) {
      return new PasswordProof(Attempt.of(session));
    }
  }

  @Override
  protected boolean sendAuthDataRequest(ClientSession session, String service) throws Exception {
    if (!attempt.mayTryLetters()) {
      return false;
    }
    char[] secret =
        attempt.askingLetters(NAME, wrong -> attempt.talk().password(attempt.address(), wrong));
    if (secret == null) {
      attempt.giveUp();
      return false;
    }
    byte[] bytes = Letters.bytes(secret);
    Buffer request = session.createBuffer(SshConstants.SSH_MSG_USERAUTH_REQUEST, 256);
    try {
      request.putString(session.getUsername());
      request.putString(service);
      request.putString(NAME);
      request.putBoolean(false);
      request.putBytes(bytes);
      session.writePacket(request).verify();
      return true;
    } finally {
      Letters.wipe(secret);
      Letters.wipe(bytes);
      Letters.wipe(request.array());
    }
  }

  @Override
  protected boolean processAuthDataRequest(ClientSession session, String service, Buffer answer) {
    // The server wants the password changed (SSH_MSG_USERAUTH_PASSWD_CHANGEREQ): not offered here.
    attempt.passwordExpired();
    return false;
  }
}
