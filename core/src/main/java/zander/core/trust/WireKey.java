package zander.core.trust;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.Base64;
import org.jspecify.annotations.Nullable;

/** A public key in the wire form of RFC 4253, section 6.6. */
public final class WireKey {
  private final String type;
  private final byte[] blob;

  /**
   * @param type the algorithm's name, {@code ssh-ed25519}
   */
  public WireKey(String type, byte[] blob) {
    this.type = type;
    this.blob = blob.clone();
  }

  public String type() {
    return type;
  }

  public String base64() {
    return Base64.getEncoder().encodeToString(blob);
  }

  /** {@code SHA256:} and the unpadded base64 of the digest, as OpenSSH shows it. */
  public String fingerprint() {
    try {
      byte[] digest = MessageDigest.getInstance("SHA-256").digest(blob);
      return "SHA256:" + Base64.getEncoder().withoutPadding().encodeToString(digest);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  /**
   * A key from its wire form alone, which names its own type.
   *
   * @throws IllegalArgumentException when it does not
   */
  public static WireKey ofBlob(byte[] blob) {
    int length = blob.length < 4 ? -1 : ByteBuffer.wrap(blob).getInt();
    if (length < 1 || length > blob.length - 4) {
      throw new IllegalArgumentException("the key does not name its type");
    }
    return new WireKey(new String(blob, 4, length, StandardCharsets.US_ASCII), blob);
  }

  public byte[] blob() {
    return blob.clone();
  }

  /** The type in the trade's short form: {@code ed25519}, {@code ecdsa}, {@code rsa}. */
  public String shortType() {
    return type.replaceFirst("^(sk-)?ssh-", "")
        .replaceFirst("^(sk-)?ecdsa-sha2-.*", "ecdsa")
        .replaceFirst("-cert-v01@openssh.com$", "")
        .replaceFirst("@openssh.com$", "");
  }

  /** Reads the base64 field of a key line; {@code null} when it is not a key of that type. */
  public static @Nullable WireKey ofBase64(String type, String base64) {
    try {
      byte[] blob = Base64.getDecoder().decode(base64);
      byte[] name = type.getBytes(StandardCharsets.US_ASCII);
      boolean named =
          blob.length > name.length + 4
              && blob[3] == name.length
              && Arrays.equals(blob, 4, 4 + name.length, name, 0, name.length);
      return named ? new WireKey(type, blob) : null;
    } catch (IllegalArgumentException e) {
      return null;
    }
  }

  @Override
  public boolean equals(@Nullable Object other) {
    return other instanceof WireKey key && key.type.equals(type) && Arrays.equals(key.blob, blob);
  }

  @Override
  public int hashCode() {
    return Arrays.hashCode(blob);
  }

  @Override
  public String toString() {
    return shortType() + " " + fingerprint();
  }
}
