package zander.standin.demo;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.KeyFactory;
import java.security.KeyPair;
import java.security.MessageDigest;
import java.security.PrivateKey;
import java.security.spec.PKCS8EncodedKeySpec;
import java.security.spec.X509EncodedKeySpec;
import java.util.HexFormat;
import org.apache.sshd.common.config.keys.PublicKeyEntry;
import org.apache.sshd.common.config.keys.writer.openssh.OpenSSHKeyPairResourceWriter;
import org.apache.sshd.common.util.security.SecurityUtils;
import org.bouncycastle.crypto.params.Ed25519PrivateKeyParameters;

/** Made-up ed25519 keys, the same for the same name at each start. They protect nothing. */
public final class DemoKeys {
  /** The fixed start of an ed25519 private key in PKCS #8 (RFC 8410, section 7). */
  private static final String PREFIX = "302e020100300506032b657004220420";

  /** The fixed start of an ed25519 public key (RFC 8410, section 4). */
  private static final String PUBLIC_PREFIX = "302a300506032b6570032100";

  private DemoKeys() {}

  public static KeyPair pair(String name) {
    try {
      byte[] seed =
          MessageDigest.getInstance("SHA-256")
              .digest(("riverwatch demo key " + name).getBytes(StandardCharsets.UTF_8));
      byte[] encoded = HexFormat.of().parseHex(PREFIX + HexFormat.of().formatHex(seed));
      KeyFactory factory = SecurityUtils.getKeyFactory("Ed25519");
      PrivateKey key = factory.generatePrivate(new PKCS8EncodedKeySpec(encoded));
      byte[] point = new Ed25519PrivateKeyParameters(seed).generatePublicKey().getEncoded();
      byte[] open = HexFormat.of().parseHex(PUBLIC_PREFIX + HexFormat.of().formatHex(point));
      return new KeyPair(factory.generatePublic(new X509EncodedKeySpec(open)), key);
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException(e);
    }
  }

  /** The line for {@code authorized_keys}. */
  public static String publicLine(KeyPair pair, String comment) {
    return PublicKeyEntry.toString(pair.getPublic()) + " " + comment + "\n";
  }

  /** Writes the private key file in the OpenSSH form, closed to others. */
  public static void writePrivate(KeyPair pair, String comment, Path file) throws IOException {
    ByteArrayOutputStream text = new ByteArrayOutputStream();
    try {
      OpenSSHKeyPairResourceWriter.INSTANCE.writePrivateKey(pair, comment, null, text);
    } catch (GeneralSecurityException e) {
      throw new IOException(e);
    }
    Files.createDirectories(file.getParent());
    Files.write(file, text.toByteArray());
    Files.setPosixFilePermissions(file, PosixFilePermissions.fromString("rw-------"));
  }
}
