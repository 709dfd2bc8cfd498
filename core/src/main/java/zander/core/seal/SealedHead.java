package zander.core.seal;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * What stands in clear before something sealed. Form, numbers big-endian: the magic with its
 * version, whether the key lasts, by what the key is known (8), the length of the wrapped key (2),
 * the wrapped key, the nonce (12).
 *
 * @param lasts whether the vault has the key; else it ends with the program's run
 * @param id of the public key, or of the run
 * @param wrapped the data key, sealed for the vault's; empty for one of a run
 */
record SealedHead(boolean lasts, byte[] id, byte[] wrapped, byte[] nonce) {
  private static final byte[] MAGIC = "zander-sealed-1".getBytes(StandardCharsets.US_ASCII);
  static final int NONCE = 12;
  private static final int FIXED = MAGIC.length + 1 + SealKeys.ID + 2 + NONCE;
  private static final int MOST_WRAPPED = 512;

  /** Reads one; {@code null} for what is none. */
  static @Nullable SealedHead of(byte[] sealed) {
    if (sealed.length < FIXED || !Arrays.equals(sealed, 0, MAGIC.length, MAGIC, 0, MAGIC.length)) {
      return null;
    }
    ByteBuffer from = ByteBuffer.wrap(sealed, MAGIC.length, sealed.length - MAGIC.length);
    boolean lasts = from.get() == 1;
    byte[] id = new byte[SealKeys.ID];
    from.get(id);
    int length = from.getShort() & 0xffff;
    if (length > MOST_WRAPPED || length + NONCE > from.remaining()) {
      return null;
    }
    byte[] wrapped = new byte[length];
    from.get(wrapped);
    byte[] nonce = new byte[NONCE];
    from.get(nonce);
    return new SealedHead(lasts, id, wrapped, nonce);
  }

  int length() {
    return FIXED + wrapped.length;
  }

  byte[] bytes() {
    ByteBuffer into = ByteBuffer.allocate(length());
    into.put(MAGIC).put((byte) (lasts ? 1 : 0)).put(id);
    into.putShort((short) wrapped.length).put(wrapped).put(nonce);
    return into.array();
  }
}
