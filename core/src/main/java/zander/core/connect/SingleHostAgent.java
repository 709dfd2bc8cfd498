package zander.core.connect;

import java.io.IOException;
import java.security.PublicKey;
import java.util.Arrays;
import org.apache.sshd.common.SshConstants;
import org.apache.sshd.common.signature.BuiltinSignatures;
import org.apache.sshd.common.signature.Signature;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import org.jspecify.annotations.Nullable;
import zander.core.connect.signin.KeyOffer;
import zander.core.connect.signin.PublicKeyAuth;
import zander.core.trust.WireKey;

/**
 * A key agent (draft-miller-ssh-agent) that holds one key, for one account of one server, known by
 * its host key. Whoever asks must first show that the session to be signed for is with that server:
 * by its signature over the session's number ({@code session-bind@openssh.com}, PROTOCOL.agent of
 * OpenSSH). Anything else is refused, so that who can reach this agent on the borrowing server can
 * sign in nowhere but there. Safe for several threads.
 */
final class SingleHostAgent {
  static final int LONGEST = 256 * 1024;

  private static final int FAILURE = 5;
  private static final int SUCCESS = 6;
  private static final int REQUEST_IDENTITIES = 11;
  private static final int IDENTITIES = 12;
  private static final int SIGN = 13;
  private static final int SIGNATURE = 14;
  private static final int EXTENSION = 27;
  private static final byte[] REFUSED = {FAILURE};
  private static final String BIND = "session-bind@openssh.com";
  private static final String HOST_BOUND = "publickey-hostbound-v00@openssh.com";
  private static final String SERVICE = "ssh-connection";

  private final KeyOffer offer;
  private final String account;
  private final WireKey host;
  private volatile boolean over;

  /**
   * @param account the only one that may be signed in to
   * @param host the host key of the only server
   */
  SingleHostAgent(KeyOffer offer, String account, WireKey host) {
    this.offer = offer;
    this.account = account;
    this.host = host;
  }

  /** From now on everything is refused. */
  void end() {
    over = true;
  }

  /** One connection to the agent: what it showed of its session. For one thread. */
  final class Talk {
    /** The number of the session with the server; {@code null} before that was shown. */
    private byte @Nullable [] bound;

    /**
     * @param request from its type on
     * @return the answer from its type on
     */
    byte[] answer(byte[] request) {
      if (over || request.length == 0) {
        return REFUSED;
      }
      Buffer body = new ByteArrayBuffer(request, 1, request.length - 1);
      try {
        return switch (request[0]) {
          case REQUEST_IDENTITIES -> identities();
          case EXTENSION -> bind(body) ? new byte[] {SUCCESS} : REFUSED;
          case SIGN -> sign(body);
          default -> REFUSED;
        };
      } catch (Exception e) {
        // Whatever was sent, it was no request that may be granted.
        return REFUSED;
      }
    }

    private byte[] identities() {
      Buffer answer = new ByteArrayBuffer();
      answer.putByte((byte) IDENTITIES);
      answer.putInt(1);
      answer.putBytes(offer.key().blob());
      answer.putString(offer.key().shortType());
      return answer.getCompactData();
    }

    private boolean bind(Buffer body) throws Exception {
      if (bound != null || !body.getString().equals(BIND)) {
        return false;
      }
      byte[] shown = body.getBytes();
      byte[] session = body.getBytes();
      byte[] signature = body.getBytes();
      boolean forwarding = body.getBoolean();
      if (forwarding || !Arrays.equals(shown, host.blob()) || !isSigned(session, signature)) {
        return false;
      }
      bound = session;
      return true;
    }

    private boolean isSigned(byte[] session, byte[] signature) throws Exception {
      PublicKey key = new ByteArrayBuffer(host.blob()).getRawPublicKey();
      String algorithm = new ByteArrayBuffer(signature).getString();
      if (!isOf(host.type(), algorithm)) {
        return false;
      }
      Signature verifier = BuiltinSignatures.resolveFactory(algorithm).create();
      verifier.initVerifier(null, key);
      verifier.update(null, session);
      return verifier.verify(null, signature);
    }

    /** Only by SHA-2 with RSA keys (RFC 8332). */
    private static boolean isOf(String type, String algorithm) {
      return type.equals("ssh-rsa")
          ? algorithm.equals("rsa-sha2-256") || algorithm.equals("rsa-sha2-512")
          : algorithm.equals(type);
    }

    /** What is signed must be the request of RFC 4252, section 7, and nothing else. */
    private byte[] sign(Buffer body) throws IOException {
      boolean ours = Arrays.equals(body.getBytes(), offer.key().blob());
      byte[] data = body.getBytes();
      Buffer asked = new ByteArrayBuffer(data);
      if (!ours || bound == null || !Arrays.equals(asked.getBytes(), bound)) {
        return REFUSED;
      }
      boolean request =
          asked.getUByte() == SshConstants.SSH_MSG_USERAUTH_REQUEST
              && asked.getString().equals(account)
              && asked.getString().equals(SERVICE);
      String method = asked.getString();
      boolean granted =
          request
              && (method.equals(PublicKeyAuth.NAME) || method.equals(HOST_BOUND))
              && asked.getBoolean()
              && asked.getString().equals(offer.algorithm())
              && Arrays.equals(asked.getBytes(), offer.key().blob())
              && (!method.equals(HOST_BOUND) || Arrays.equals(asked.getBytes(), host.blob()))
              && asked.available() == 0;
      byte[] signature =
          granted ? offer.signer().sign(null, offer.signatureAlgorithm(), data) : null;
      if (signature == null) {
        return REFUSED;
      }
      Buffer answer = new ByteArrayBuffer();
      answer.putByte((byte) SIGNATURE);
      answer.putBytes(signature);
      return answer.getCompactData();
    }
  }
}
