package zander.core.connect.signin;

import java.io.IOException;
import java.util.Optional;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.session.SessionContext;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.SignInPhrase;

/**
 * The {@code publickey} method of RFC 4252, section 7. A key that can sign at once is offered with
 * its signature, which saves a round trip; for one under a passphrase the server is asked first
 * whether it would take it, so that nobody types a passphrase for a key that is of no use.
 */
public final class PublicKeyAuth extends AuthMethod {
  public static final String NAME = "publickey";

  public PublicKeyAuth(SignInAttempt attempt) {
    super(NAME, attempt);
  }

  @Override
  protected boolean sendAuthDataRequest(ClientSession session, String service) throws IOException {
    return sendNext(attempt, session, service);
  }

  /** Offers the next key; false when there is none left. */
  static boolean sendNext(SignInAttempt attempt, ClientSession session, String service)
      throws IOException {
    KeyOffer offer = attempt.nextOffer();
    if (offer == null) {
      return false;
    }
    if (offer.signer().isReady()) {
      return sendSigned(attempt, offer, session, service);
    }
    Buffer request = session.createBuffer(SshConstants.SSH_MSG_USERAUTH_REQUEST);
    putRequest(request, offer, session.getUsername(), service, false);
    session.writePacket(request);
    return true;
  }

  private static void putRequest(
      Buffer request, KeyOffer offer, String account, String service, boolean signed) {
    request.putString(account);
    request.putString(service);
    request.putString(NAME);
    request.putBoolean(signed);
    request.putString(offer.algorithm());
    request.putBytes(offer.key().blob());
  }

  private static boolean sendSigned(
      SignInAttempt attempt, KeyOffer offer, ClientSession session, String service)
      throws IOException {
    Buffer signed = new ByteArrayBuffer();
    signed.putBytes(session.getSessionId());
    signed.putByte(SshConstants.SSH_MSG_USERAUTH_REQUEST);
    putRequest(signed, offer, session.getUsername(), service, true);
    Optional<byte[]> signature;
    try {
      signature =
          attempt.asking(
              () ->
                  Optional.ofNullable(
                      offer
                          .signer()
                          .sign(
                              (SessionContext) session,
                              offer.signatureAlgorithm(),
                              signed.getCompactData())));
    } catch (IOException e) {
      return attempt.couldNotSign(e);
    }
    if (signature.isEmpty()) {
      attempt.giveUp();
      return false;
    }
    Buffer request = session.createBuffer(SshConstants.SSH_MSG_USERAUTH_REQUEST);
    putRequest(request, offer, session.getUsername(), service, true);
    request.putBytes(signature.get());
    session.writePacket(request);
    return true;
  }

  @Override
  protected boolean processAuthDataRequest(ClientSession session, String service, Buffer answer)
      throws IOException {
    // SSH_MSG_USERAUTH_PK_OK: the server would take the key that was asked about last.
    KeyOffer offer = attempt.pendingOffer();
    attempt.answered();
    if (answer.getUByte() != SshConstants.SSH_MSG_USERAUTH_PK_OK || offer == null) {
      throw new ExplainedException(SignInPhrase.NOT_EXPECTED.of());
    }
    return sendSigned(attempt, offer, session, service);
  }
}
