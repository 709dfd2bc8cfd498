package zander.core.connect;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.apache.sshd.client.auth.AbstractUserAuth;
import org.apache.sshd.client.auth.AbstractUserAuthFactory;
import org.apache.sshd.client.auth.UserAuth;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.util.buffer.Buffer;

/**
 * The {@code password} method of RFC 4252, section 8. The library's own keeps passwords as strings,
 * which cannot be wiped; this one sends them from bytes and wipes those.
 */
final class PasswordProof extends AbstractUserAuth {
  static final String NAME = "password";
  private static final int MOST_TRIES = 3;

  private final Attempt attempt;
  private int tries;

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
    if (tries == MOST_TRIES || !attempt.mayUsePassword()) {
      return false;
    }
    char[] secret = attempt.talk().password(attempt.address(), tries);
    if (secret == null) {
      attempt.giveUp();
      return false;
    }
    tries++;
    attempt.passwordTried();
    ByteBuffer encoded = StandardCharsets.UTF_8.encode(CharBuffer.wrap(secret));
    byte[] bytes = Arrays.copyOf(encoded.array(), encoded.limit());
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
      Arrays.fill(secret, '\0');
      Arrays.fill(bytes, (byte) 0);
      Arrays.fill(encoded.array(), (byte) 0);
      Arrays.fill(request.array(), (byte) 0);
    }
  }

  @Override
  protected boolean processAuthDataRequest(ClientSession session, String service, Buffer answer) {
    // The server wants the password changed (SSH_MSG_USERAUTH_PASSWD_CHANGEREQ): not offered here.
    return false;
  }
}
