package zander.core.transfer.endpoint;

import java.io.IOException;
import java.io.InputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.TransferPhrase;

/** SHA-256 (FIPS 180-4) as 64 hexadecimal digits. */
public final class Sha256 {
  private Sha256() {}

  public static MessageDigest begin() {
    try {
      return MessageDigest.getInstance("SHA-256");
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }

  public static String of(byte[] content) {
    return end(begin().digest(content));
  }

  public static String end(byte[] digest) {
    return HexFormat.of().formatHex(digest);
  }

  /**
   * @param length bytes from the front; -1 for all there are
   * @throws IOException when there are fewer
   */
  public static String of(InputStream in, long length) throws IOException {
    MessageDigest digest = begin();
    byte[] buffer = new byte[256 * 1024];
    for (long left = length < 0 ? Long.MAX_VALUE : length; left > 0; ) {
      int count = in.read(buffer, 0, (int) Math.min(buffer.length, left));
      if (count < 0 && length < 0) {
        break;
      }
      if (count < 0) {
        throw new ExplainedException(TransferPhrase.SHORTER_THAN_SAID.of());
      }
      digest.update(buffer, 0, count);
      left -= count;
    }
    return end(digest.digest());
  }
}
