package zander.core.connect;

import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.SecureRandom;
import java.util.List;
import java.util.function.BooleanSupplier;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.apache.sshd.client.channel.ChannelExec;
import org.apache.sshd.client.channel.ChannelSubsystem;
import org.apache.sshd.client.session.ClientConnectionService;
import org.apache.sshd.common.forward.DefaultForwarder;
import org.apache.sshd.common.kex.BuiltinDHFactories;
import org.apache.sshd.common.signature.BuiltinSignatures;
import org.apache.sshd.common.signature.Signature;
import org.apache.sshd.common.util.security.SecurityUtils;
import zander.core.files.sftp.SftpFiles;
import zander.core.files.sftp.channel.SftpChannel;

/**
 * Runs once, in the background, what the first sign-in and the first megabytes would otherwise wait
 * for: loading the key exchanges and compiling the cipher. Only time is lost when it fails.
 */
final class WarmUp {
  private static final int ROUNDS = 4000;
  private static final int PACKET = 4096;

  /** By their types, so that one that moves is not missed without a word. */
  private static final List<Class<?>> USED_AFTER_THE_SIGN_IN =
      List.of(
          ChannelSubsystem.class,
          ChannelExec.class,
          ClientConnectionService.class,
          DefaultForwarder.class,
          SftpFiles.class,
          SftpChannel.class);

  private WarmUp() {}

  /**
   * @param enough asked between the steps: true ends it, when the real thing has begun and does the
   *     same work, on a processor that is better left to it
   */
  static void run(BooleanSupplier enough) {
    try {
      KeyPairGenerator.getInstance("X25519").generateKeyPair();
      KeyPair pair = SecurityUtils.getKeyPairGenerator("Ed25519").generateKeyPair();
      for (BuiltinDHFactories exchange :
          new BuiltinDHFactories[] {
            BuiltinDHFactories.sntrup761x25519, BuiltinDHFactories.curve25519
          }) {
        if (exchange.isSupported()) {
          exchange.create().getE();
        }
      }
      if (enough.getAsBoolean()) {
        return;
      }
      sign(pair);
      for (Class<?> used : USED_AFTER_THE_SIGN_IN) {
        Class.forName(used.getName());
      }
      compileCipher(enough);
    } catch (Exception e) {
      org.slf4j.LoggerFactory.getLogger(WarmUp.class).debug("warm-up ended early", e);
    }
  }

  private static void sign(KeyPair pair) throws Exception {
    Signature signature = BuiltinSignatures.ed25519.create();
    signature.initSigner(null, pair.getPrivate());
    signature.update(null, new byte[32]);
    byte[] signed = signature.sign(null);
    signature.initVerifier(null, pair.getPublic());
    signature.update(null, new byte[32]);
    signature.verify(null, signed);
  }

  private static void compileCipher(BooleanSupplier enough) throws GeneralSecurityException {
    SecureRandom random = new SecureRandom();
    byte[] key = new byte[16];
    byte[] nonce = new byte[12];
    byte[] packet = new byte[PACKET];
    byte[] out = new byte[PACKET + 16];
    random.nextBytes(key);
    Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
    for (int round = 0; round < ROUNDS && !enough.getAsBoolean(); round++) {
      nonce[0] = (byte) round;
      nonce[1] = (byte) (round >> 8);
      cipher.init(
          Cipher.ENCRYPT_MODE, new SecretKeySpec(key, "AES"), new GCMParameterSpec(128, nonce));
      cipher.doFinal(packet, 0, PACKET, out, 0);
    }
  }
}
