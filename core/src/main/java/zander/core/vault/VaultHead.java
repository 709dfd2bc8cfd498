package zander.core.vault;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import zander.core.phrase.KeyFilePhrase;
import zander.core.vault.VaultFailure.Reason;

/**
 * What stands in clear before the sealed part of a vault: how its key is made.
 *
 * @param memory of Argon2id, in KiB
 * @param passes of Argon2id
 */
record VaultHead(int memory, int passes, byte[] salt, byte[] nonce) {
  private static final byte[] MAGIC = "zander-vault".getBytes(StandardCharsets.US_ASCII);
  private static final int VERSION = 1;
  private static final int MOST_MEMORY = 1024 * 1024;
  private static final int MOST_PASSES = 64;
  static final int SALT = 16;
  static final int NONCE = 12;
  static final int BYTES = MAGIC.length + 12 + SALT + NONCE;

  /** The mark of AES-GCM behind the sealed part (NIST SP 800-38D). */
  static final int TAG = 16;

  static VaultHead of(byte[] file) throws VaultFailure {
    if (file.length < BYTES + TAG
        || !Arrays.equals(file, 0, MAGIC.length, MAGIC, 0, MAGIC.length)) {
      throw new VaultFailure(Reason.DAMAGED, KeyFilePhrase.NO_VAULT.of(), null);
    }
    ByteBuffer from = ByteBuffer.wrap(file, MAGIC.length, BYTES - MAGIC.length);
    int version = from.getInt();
    int memory = from.getInt();
    int passes = from.getInt();
    byte[] salt = new byte[SALT];
    from.get(salt);
    byte[] nonce = new byte[NONCE];
    from.get(nonce);
    if (version > VERSION) {
      throw new VaultFailure(Reason.NEWER, KeyFilePhrase.OTHER_VERSION.of(version), null);
    }
    if (memory < 8 || memory > MOST_MEMORY || passes < 1 || passes > MOST_PASSES) {
      throw new VaultFailure(Reason.DAMAGED, KeyFilePhrase.HEAD_UNREADABLE.of(), null);
    }
    return new VaultHead(memory, passes, salt, nonce);
  }

  /** The same for what is sealed next: no nonce seals twice. */
  VaultHead with(byte[] otherNonce) {
    return new VaultHead(memory, passes, salt, otherNonce);
  }

  byte[] bytes() {
    ByteBuffer into = ByteBuffer.allocate(BYTES);
    into.put(MAGIC).putInt(VERSION).putInt(memory).putInt(passes).put(salt).put(nonce);
    return into.array();
  }

  /** Whether one key opens both. */
  boolean hasKeyOf(VaultHead other) {
    return memory == other.memory && passes == other.passes && Arrays.equals(salt, other.salt);
  }
}
