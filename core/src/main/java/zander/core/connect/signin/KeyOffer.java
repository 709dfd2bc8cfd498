package zander.core.connect.signin;

import java.io.IOException;
import java.security.KeyPair;
import org.apache.sshd.common.session.SessionContext;
import org.apache.sshd.common.signature.BuiltinSignatures;
import org.apache.sshd.common.signature.Signature;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import org.jspecify.annotations.Nullable;
import zander.core.connect.keys.Agent;
import zander.core.connect.keys.KeyFailure;
import zander.core.connect.keys.KeyFile;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.Phrase;
import zander.core.phrase.SignInPhrase;
import zander.core.trust.WireKey;

/**
 * A key that can be offered: its public half, and who signs with the private one.
 *
 * @param key the public half or the certificate, in wire form
 * @param name for the person: the file's name, quoted, or what the agent calls it
 */
public record KeyOffer(WireKey key, Phrase name, Signer signer) {
  private static final String CERTIFICATE = "-cert-v01@openssh.com";

  /** Signs with a private key. */
  public interface Signer {
    /** Whether it can sign without asking anybody. */
    boolean isReady();

    /**
     * @return the signature in wire form; {@code null} when the person gave up
     */
    byte @Nullable [] sign(@Nullable SessionContext session, String algorithm, byte[] data)
        throws IOException;
  }

  /** The name of the public key algorithm: RSA keys sign by SHA-2 only (RFC 8332). */
  public String algorithm() {
    return key.type().startsWith("ssh-rsa")
        ? key.type().replace("ssh-rsa", "rsa-sha2-512")
        : key.type();
  }

  /** The name of the signature's algorithm, which for certificates is that of their key. */
  public String signatureAlgorithm() {
    return algorithm().replace(CERTIFICATE, "");
  }

  /** A key that an agent holds. */
  static Signer inAgent(Agent agent, WireKey plain) {
    return new Signer() {
      @Override
      public boolean isReady() {
        return true;
      }

      @Override
      public byte[] sign(@Nullable SessionContext session, String algorithm, byte[] data)
          throws IOException {
        return agent.sign(plain, data);
      }
    };
  }

  /** A key in a file, opened when it is first needed. */
  static final class InFile implements Signer {
    private static final int MOST_TRIES = 3;

    private final KeyFile file;
    private final SignInPrompt talk;
    private @Nullable KeyPair pair;

    InFile(KeyFile file, SignInPrompt talk) {
      this.file = file;
      this.talk = talk;
    }

    @Override
    public boolean isReady() {
      return pair != null || !file.isLocked();
    }

    /** Opens the file; {@code null} when the person gave up. */
    @Nullable KeyPair pair() throws KeyFailure {
      for (int wrong = 0; pair == null; wrong++) {
        char[] letters = file.isLocked() ? talk.passphrase(file.file(), wrong) : new char[0];
        if (letters == null) {
          return null;
        }
        try {
          pair = file.open(letters);
        } catch (KeyFailure e) {
          boolean again = e.reason() == KeyFailure.Reason.WRONG_PASSPHRASE;
          if (!again || wrong + 1 == MOST_TRIES) {
            throw e;
          }
        } finally {
          java.util.Arrays.fill(letters, '\0');
        }
      }
      return pair;
    }

    @Override
    public byte @Nullable [] sign(@Nullable SessionContext session, String algorithm, byte[] data)
        throws IOException {
      KeyPair open = pair();
      if (open == null) {
        return null;
      }
      try {
        Signature signature = BuiltinSignatures.resolveFactory(algorithm).create();
        signature.initSigner(session, open.getPrivate());
        signature.update(session, data);
        ByteArrayBuffer wire = new ByteArrayBuffer();
        wire.putString(algorithm);
        wire.putBytes(signature.sign(session));
        return wire.getCompactData();
      } catch (Exception e) {
        throw new ExplainedException(SignInPhrase.CANNOT_SIGN.of(Phrase.of(e)), e);
      }
    }
  }
}
