package zander.core.seal;

import java.io.IOException;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import org.bouncycastle.crypto.AsymmetricCipherKeyPair;
import org.bouncycastle.crypto.InvalidCipherTextException;
import org.bouncycastle.crypto.hpke.HPKE;
import org.bouncycastle.crypto.params.X25519PrivateKeyParameters;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;
import zander.core.work.SecretBytes;

/**
 * The pair of keys behind what is sealed for good: the public one seals without asking anybody, the
 * private one is in the vault. Hybrid public key encryption in base mode (RFC 9180): X25519,
 * HKDF-SHA256, AES-256-GCM.
 */
public final class SealKeys {
  static final int PUBLIC = 32;
  static final int PRIVATE = 32;
  static final int ID = 8;
  private static final byte[] INFO = {'z', 'a', 'n', 'd', 'e', 'r', ' ', 'k', 'e', 'p', 't'};

  private static final byte[] NOTHING = {};

  private SealKeys() {}

  private static HPKE hpke() {
    return new HPKE(
        HPKE.mode_base, HPKE.kem_X25519_SHA256, HPKE.kdf_HKDF_SHA256, HPKE.aead_AES_GCM256);
  }

  /** A new private key, 32 bytes, for the caller to wipe. */
  public static byte[] newPrivate() {
    HPKE hpke = hpke();
    return hpke.serializePrivateKey(hpke.generatePrivateKey().getPrivate());
  }

  /**
   * The public key that goes with a private one.
   *
   * @throws IllegalArgumentException when it is none
   */
  public static byte[] publicOf(byte[] privateKey) {
    if (privateKey.length != PRIVATE) {
      throw new IllegalArgumentException("a private key has " + PRIVATE + " bytes");
    }
    return new X25519PrivateKeyParameters(privateKey, 0).generatePublicKey().getEncoded();
  }

  /** By what a public key is told from others: the head of its SHA-256. */
  static byte[] id(byte[] publicKey) {
    try {
      return Arrays.copyOf(MessageDigest.getInstance("SHA-256").digest(publicKey), ID);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  /** Seals a key for whoever has the private one. */
  static byte[] wrap(byte[] publicKey, byte[] key) throws IOException {
    HPKE hpke = hpke();
    try {
      byte[][] sealed =
          hpke.seal(hpke.deserializePublicKey(publicKey), INFO, NOTHING, key, null, null, null);
      byte[] all = Arrays.copyOf(sealed[1], sealed[1].length + sealed[0].length);
      System.arraycopy(sealed[0], 0, all, sealed[1].length, sealed[0].length);
      return all;
    } catch (InvalidCipherTextException e) {
      throw new ExplainedException(KeptPhrase.NOT_SEALED.of(), e);
    }
  }

  /** Opens what {@link #wrap} made; the caller wipes it. */
  static byte[] unwrap(byte[] privateKey, byte[] wrapped) throws StillSealed {
    if (wrapped.length <= PUBLIC) {
      throw new StillSealed(StillSealed.Reason.DAMAGED, null);
    }
    HPKE hpke = hpke();
    byte[] publicKey = publicOf(privateKey);
    AsymmetricCipherKeyPair pair = hpke.deserializePrivateKey(privateKey, publicKey);
    byte[] once = Arrays.copyOf(wrapped, PUBLIC);
    byte[] sealed = Arrays.copyOfRange(wrapped, PUBLIC, wrapped.length);
    try {
      return hpke.open(once, pair, INFO, NOTHING, sealed, null, null, null);
    } catch (InvalidCipherTextException | IllegalArgumentException | IllegalStateException e) {
      throw new StillSealed(StillSealed.Reason.DAMAGED, e);
    } finally {
      SecretBytes.wipe(sealed);
    }
  }
}
