package zander.core.connect.signin;

import java.util.List;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.util.buffer.Buffer;
import zander.core.work.SecretBytes;

/**
 * The {@code password} method of RFC 4252, section 8. The library's own keeps passwords as strings,
 * which cannot be wiped; this one sends them from bytes and wipes those.
 */
public final class PasswordAuth extends AuthMethod {
  public static final String NAME = "password";

  public PasswordAuth(SignInAttempt attempt) {
    super(NAME, attempt);
  }

  @Override
  protected boolean sendAuthDataRequest(ClientSession session, String service) throws Exception {
    if (!attempt.mayTryLetters()) {
      return false;
    }
    List<char[]> asked =
        attempt.askingLetters(
            NAME,
            List.of(),
            wrong -> {
              char[] typed = attempt.talk().password(attempt.address(), wrong);
              return typed == null ? null : List.of(typed);
            });
    if (asked == null) {
      attempt.giveUp();
      return false;
    }
    char[] secret = asked.get(0);
    byte[] bytes = SecretBytes.bytes(secret);
    Buffer request = request(session, service, NAME);
    try {
      request.putBoolean(false);
      request.putBytes(bytes);
      session.writePacket(request).verify();
      return true;
    } finally {
      SecretBytes.wipe(secret);
      SecretBytes.wipe(bytes);
      SecretBytes.wipe(request.array());
    }
  }

  @Override
  protected boolean processAuthDataRequest(ClientSession session, String service, Buffer answer) {
    // The server wants the password changed (SSH_MSG_USERAUTH_PASSWD_CHANGEREQ): not offered here.
    attempt.passwordExpired();
    return false;
  }
}
