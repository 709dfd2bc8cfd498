package zander.core.work;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/** Letters of a secret as bytes, without a string in between. */
public final class SecretBytes {
  private SecretBytes() {}

  /** UTF-8; the caller wipes both. */
  public static byte[] bytes(char[] letters) {
    ByteBuffer encoded = StandardCharsets.UTF_8.encode(CharBuffer.wrap(letters));
    byte[] bytes = new byte[encoded.remaining()];
    encoded.get(0, bytes);
    encoded.clear();
    for (int i = 0; i < encoded.capacity(); i++) {
      encoded.put(i, (byte) 0);
    }
    return bytes;
  }

  public static void wipe(byte @Nullable [] bytes) {
    if (bytes != null) {
      Arrays.fill(bytes, (byte) 0);
    }
  }

  public static void wipe(char @Nullable [] letters) {
    if (letters != null) {
      Arrays.fill(letters, '\0');
    }
  }
}
