package zander.core.connect;

import java.security.GeneralSecurityException;
import java.security.KeyPairGenerator;
import java.security.SecureRandom;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.apache.sshd.common.kex.BuiltinDHFactories;
import org.apache.sshd.common.util.security.SecurityUtils;

/**
 * Runs once, in the background, what the first sign-in and the first megabytes would otherwise wait
 * for: loading the key exchanges and compiling the cipher. Only time is lost when it fails.
 */
final class WarmUp {
  private static final int ROUNDS = 4000;
  private static final int PACKET = 4096;

  private WarmUp() {}

  static void run() {
    try {
      KeyPairGenerator.getInstance("X25519").generateKeyPair();
      SecurityUtils.getKeyPairGenerator("Ed25519").generateKeyPair();
      for (BuiltinDHFactories exchange :
          new BuiltinDHFactories[] {
            BuiltinDHFactories.sntrup761x25519, BuiltinDHFactories.curve25519
          }) {
        if (exchange.isSupported()) {
          exchange.create().getE();
        }
      }
      compileCipher();
    } catch (Exception e) {
      org.slf4j.LoggerFactory.getLogger(WarmUp.class).debug("warm-up ended early", e);
    }
  }

  private static void compileCipher() throws GeneralSecurityException {
    SecureRandom random = new SecureRandom();
    byte[] key = new byte[16];
    byte[] nonce = new byte[12];
    byte[] packet = new byte[PACKET];
    byte[] out = new byte[PACKET + 16];
    random.nextBytes(key);
    Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
    for (int round = 0; round < ROUNDS; round++) {
      nonce[0] = (byte) round;
      nonce[1] = (byte) (round >> 8);
      cipher.init(
          Cipher.ENCRYPT_MODE, new SecretKeySpec(key, "AES"), new GCMParameterSpec(128, nonce));
      cipher.doFinal(packet, 0, PACKET, out, 0);
    }
  }
}
