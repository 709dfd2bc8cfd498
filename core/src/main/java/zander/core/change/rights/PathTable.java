package zander.core.change.rights;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Arrays;

/**
 * Finds paths by the hundred thousand again without holding them: each by a keyed 64-bit hash
 * (SipHash-2-4), so that nobody can make two that meet. Used by one thread at a time.
 */
final class PathTable {
  private final long key0;
  private final long key1;
  private final long[] hashes;
  private final int[] tags;
  private final long[] numbers;
  private final byte[] states;
  private final int mask;

  /**
   * @param size the most that are put in
   */
  PathTable(long size) {
    int slots = Integer.highestOneBit((int) Math.max(8, Math.min(1L << 28, size * 2))) << 1;
    SecureRandom random = new SecureRandom();
    key0 = random.nextLong();
    key1 = random.nextLong();
    hashes = new long[slots];
    tags = new int[slots];
    numbers = new long[slots];
    states = new byte[slots];
    mask = slots - 1;
    Arrays.fill(tags, -1);
  }

  /** Where a path is, or would be. */
  private int slot(long hash) {
    int at = (int) hash & mask;
    while (tags[at] >= 0 && hashes[at] != hash) {
      at = (at + 1) & mask;
    }
    return at;
  }

  void put(String path, int tag, long file) {
    long hash = hash(path);
    int at = slot(hash);
    hashes[at] = hash;
    tags[at] = tag;
    numbers[at] = file;
  }

  /** The place of a path; -1 when it is not here. */
  int find(String path) {
    int at = slot(hash(path));
    return tags[at] < 0 ? -1 : at;
  }

  int tag(int at) {
    return tags[at];
  }

  long file(int at) {
    return numbers[at];
  }

  int state(int at) {
    return states[at];
  }

  void setState(int at, int state) {
    states[at] = (byte) state;
  }

  /** SipHash-2-4 (Aumasson and Bernstein, 2012). */
  private long hash(String path) {
    byte[] bytes = path.getBytes(StandardCharsets.ISO_8859_1);
    long[] v = {
      key0 ^ 0x736f6d6570736575L,
      key1 ^ 0x646f72616e646f6dL,
      key0 ^ 0x6c7967656e657261L,
      key1 ^ 0x7465646279746573L
    };
    int whole = bytes.length & ~7;
    for (int at = 0; at < whole; at += 8) {
      take(v, word(bytes, at, 8));
    }
    take(v, (long) bytes.length << 56 | word(bytes, whole, bytes.length - whole));
    v[2] ^= 0xff;
    for (int i = 0; i < 4; i++) {
      round(v);
    }
    return v[0] ^ v[1] ^ v[2] ^ v[3];
  }

  private static long word(byte[] bytes, int from, int length) {
    long word = 0;
    for (int i = 0; i < length; i++) {
      word |= (bytes[from + i] & 0xffL) << (8 * i);
    }
    return word;
  }

  private static void take(long[] v, long word) {
    v[3] ^= word;
    round(v);
    round(v);
    v[0] ^= word;
  }

  private static void round(long[] v) {
    v[0] += v[1];
    v[1] = Long.rotateLeft(v[1], 13) ^ v[0];
    v[0] = Long.rotateLeft(v[0], 32);
    v[2] += v[3];
    v[3] = Long.rotateLeft(v[3], 16) ^ v[2];
    v[0] += v[3];
    v[3] = Long.rotateLeft(v[3], 21) ^ v[0];
    v[2] += v[1];
    v[1] = Long.rotateLeft(v[1], 17) ^ v[2];
    v[2] = Long.rotateLeft(v[2], 32);
  }
}
