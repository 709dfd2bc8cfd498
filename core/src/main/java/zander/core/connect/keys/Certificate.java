package zander.core.connect.keys;

import java.nio.file.Files;
import java.nio.file.Path;
import java.security.PublicKey;
import java.time.Instant;
import java.util.Optional;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.config.keys.OpenSshCertificate;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import zander.core.connect.keys.KeyFailure.Reason;
import zander.core.phrase.KeyFilePhrase;
import zander.core.phrase.Phrase;
import zander.core.trust.WireKey;

/** A user certificate (OpenSSH's PROTOCOL.certkeys): a public key that an authority vouches for. */
public record Certificate(Path file, WireKey blob) {

  /** The certificate beside a key file, {@code name-cert.pub}; empty when there is none. */
  public static Optional<Path> beside(Path keyFile) {
    Path file = keyFile.resolveSibling(keyFile.getFileName() + "-cert.pub");
    return Files.isRegularFile(file) ? Optional.of(file) : Optional.empty();
  }

  /**
   * Reads a certificate for a key. Waits for the disk.
   *
   * @param key the public half it must be for, or {@code null} when that is not known
   * @throws KeyFailure when it is none, is for another key, or is not valid now
   */
  public static Certificate read(Path file, WireKey key) throws KeyFailure {
    WireKey blob =
        PublicKeyLine.read(file)
            .map(PublicKeyLine::key)
            .filter(read -> read.type().endsWith("-cert-v01@openssh.com"))
            .orElseThrow(() -> bad(file, KeyFilePhrase.NO_CERTIFICATE.of()));
    PublicKey parsed;
    try {
      parsed = new ByteArrayBuffer(blob.blob()).getRawPublicKey();
    } catch (Exception e) {
      throw new KeyFailure(Reason.BAD_CERTIFICATE, file, KeyFilePhrase.UNREADABLE.of(), e);
    }
    if (!(parsed instanceof OpenSshCertificate certificate)
        || certificate.getType() != OpenSshCertificate.Type.USER) {
      throw bad(file, KeyFilePhrase.NOT_OF_A_USER.of());
    }
    if (!OpenSshCertificate.isValidNow(certificate)) {
      Instant from = Instant.ofEpochSecond(certificate.getValidAfter());
      long end = certificate.getValidBefore();
      throw bad(
          file,
          end < 0
              ? KeyFilePhrase.NOT_VALID_BEFORE.of(from)
              : KeyFilePhrase.NOT_VALID_NOW.of(from, Instant.ofEpochSecond(end)));
    }
    ByteArrayBuffer inside = new ByteArrayBuffer();
    inside.putRawPublicKey(certificate.getCertPubKey());
    boolean forKey = key == null || WireKey.ofBlob(inside.getCompactData()).equals(key);
    if (!forKey) {
      throw bad(
          file,
          KeyFilePhrase.FOR_ANOTHER_KEY.of(KeyUtils.getFingerPrint(certificate.getCertPubKey())));
    }
    return new Certificate(file, blob);
  }

  private static KeyFailure bad(Path file, Phrase why) {
    return new KeyFailure(Reason.BAD_CERTIFICATE, file, why, null);
  }
}
