package zander.core.vault;

import java.io.Closeable;
import java.io.IOException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import javax.crypto.AEADBadTagException;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.bouncycastle.crypto.generators.Argon2BytesGenerator;
import org.bouncycastle.crypto.params.Argon2Parameters;
import zander.core.vault.VaultFailure.Reason;
import zander.core.work.AtomicFile;
import zander.core.work.BlockingCalls;
import zander.core.work.SecretBytes;

/**
 * Secrets in one file under a master passphrase: Argon2id (RFC 9106) makes the key, AES-256-GCM
 * seals the content together with the file's head, so that neither can be changed unseen. The file
 * is written whole. Secrets are in memory in clear while the vault is open; {@link #close} wipes
 * them.
 *
 * <p>Form of the file, numbers big-endian: the magic, version, memory in KiB, passes, salt (16),
 * nonce (12), and the sealed part: a count, then a name and a secret each, with their lengths.
 */
public final class Vault implements Closeable {
  private static final byte[] MAGIC = "zander-vault".getBytes(StandardCharsets.US_ASCII);
  private static final int VERSION = 1;

  /** RFC 9106, section 4, the second recommended option: 64 MiB and three passes. */
  private static final int MEMORY = 64 * 1024;

  private static final int MOST_MEMORY = 1024 * 1024;
  private static final int PASSES = 3;
  private static final int MOST_PASSES = 64;
  private static final int SALT = 16;
  private static final int NONCE = 12;
  private static final int HEAD = MAGIC.length + 12 + SALT + NONCE;
  private static final long LARGEST = 16 << 20;

  private final Path file;
  private final Map<String, byte[]> secrets = new TreeMap<>();
  private byte[] key;
  private byte[] salt;

  private Vault(Path file, byte[] key, byte[] salt) {
    this.file = file;
    this.key = key;
    this.salt = salt;
  }

  public static boolean exists(Path file) {
    return Files.exists(file);
  }

  /**
   * Makes an empty vault. Takes about half a second, and waits for the disk.
   *
   * @param master left as it is
   * @throws java.nio.file.FileAlreadyExistsException when there is one
   */
  public static Vault create(Path file, char[] master) throws IOException {
    BlockingCalls.check("making a vault");
    if (exists(file)) {
      throw new java.nio.file.FileAlreadyExistsException(file.toString());
    }
    byte[] salt = random(SALT);
    Vault vault = new Vault(file, derive(master, salt, MEMORY, PASSES), salt);
    vault.write();
    return vault;
  }

  /**
   * Opens one. Takes about half a second, and waits for the disk.
   *
   * @param master left as it is
   */
  public static Vault open(Path file, char[] master) throws IOException {
    BlockingCalls.check("opening a vault");
    if (Files.size(file) > LARGEST) {
      throw new VaultFailure(Reason.DAMAGED, "it is larger than any vault", null);
    }
    byte[] all = Files.readAllBytes(file);
    if (all.length < HEAD || !Arrays.equals(all, 0, MAGIC.length, MAGIC, 0, MAGIC.length)) {
      throw new VaultFailure(Reason.DAMAGED, "it is no vault, or was cut off", null);
    }
    ByteBuffer head = ByteBuffer.wrap(all, MAGIC.length, HEAD - MAGIC.length);
    int version = head.getInt();
    int memory = head.getInt();
    int passes = head.getInt();
    byte[] salt = new byte[SALT];
    head.get(salt);
    byte[] nonce = new byte[NONCE];
    head.get(nonce);
    if (version > VERSION) {
      throw new VaultFailure(Reason.NEWER, "version " + version, null);
    }
    if (memory < 8 || memory > MOST_MEMORY || passes < 1 || passes > MOST_PASSES) {
      throw new VaultFailure(Reason.DAMAGED, "its head makes no sense", null);
    }
    byte[] key = derive(master, salt, memory, passes);
    Vault vault = new Vault(file, key, salt);
    byte[] open = null;
    try {
      Cipher cipher = cipher(Cipher.DECRYPT_MODE, key, nonce);
      cipher.updateAAD(all, 0, HEAD);
      open = cipher.doFinal(all, HEAD, all.length - HEAD);
      vault.parse(open);
      return vault;
    } catch (AEADBadTagException e) {
      vault.close();
      throw new VaultFailure(
          Reason.WRONG_PASSPHRASE, "the passphrase is wrong, or the file was changed", e);
    } catch (GeneralSecurityException | BufferUnderflowException e) {
      vault.close();
      throw new VaultFailure(Reason.DAMAGED, "its content cannot be read", e);
    } finally {
      SecretBytes.wipe(open);
    }
  }

  private static byte[] derive(char[] master, byte[] salt, int memory, int passes) {
    byte[] letters = SecretBytes.bytes(master);
    try {
      Argon2BytesGenerator generator = new Argon2BytesGenerator();
      generator.init(
          new Argon2Parameters.Builder(Argon2Parameters.ARGON2_id)
              .withVersion(Argon2Parameters.ARGON2_VERSION_13)
              .withMemoryAsKB(memory)
              .withIterations(passes)
              .withParallelism(1)
              .withSalt(salt)
              .build());
      byte[] key = new byte[32];
      generator.generateBytes(letters, key);
      return key;
    } finally {
      SecretBytes.wipe(letters);
    }
  }

  private static Cipher cipher(int mode, byte[] key, byte[] nonce) throws GeneralSecurityException {
    Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
    cipher.init(mode, new SecretKeySpec(key, "AES"), new GCMParameterSpec(128, nonce));
    return cipher;
  }

  private void parse(byte[] open) {
    ByteBuffer from = ByteBuffer.wrap(open);
    for (int left = from.getInt(); left > 0; left--) {
      String name = new String(bytes(from), StandardCharsets.UTF_8);
      secrets.put(name, bytes(from));
    }
  }

  private static byte[] bytes(ByteBuffer from) {
    int length = from.getInt();
    if (length < 0 || length > from.remaining()) {
      throw new BufferUnderflowException();
    }
    byte[] bytes = new byte[length];
    from.get(bytes);
    return bytes;
  }

  /** The names of what is kept; never secret themselves. */
  public synchronized java.util.Set<String> names() {
    return new TreeSet<>(secrets.keySet());
  }

  /** A copy for the caller to wipe; {@code null} when there is none of that name. */
  public synchronized char[] get(String name) {
    byte[] secret = secrets.get(name);
    if (secret == null) {
      return null;
    }
    CharBuffer letters = StandardCharsets.UTF_8.decode(ByteBuffer.wrap(secret));
    char[] copy = Arrays.copyOf(letters.array(), letters.limit());
    Arrays.fill(letters.array(), '\0');
    return copy;
  }

  /** Keeps a secret, left as it is, and writes the file. */
  public synchronized void put(String name, char[] secret) throws IOException {
    SecretBytes.wipe(secrets.put(name, SecretBytes.bytes(secret)));
    write();
  }

  /** Forgets a secret and writes the file. */
  public synchronized void remove(String name) throws IOException {
    byte[] gone = secrets.remove(name);
    if (gone != null) {
      SecretBytes.wipe(gone);
      write();
    }
  }

  private synchronized void write() throws IOException {
    if (key == null) {
      throw new IOException("the vault is closed");
    }
    byte[] nonce = random(NONCE);
    ByteBuffer head = ByteBuffer.allocate(HEAD);
    head.put(MAGIC).putInt(VERSION).putInt(MEMORY).putInt(PASSES).put(salt).put(nonce);
    int size = 4;
    for (Map.Entry<String, byte[]> one : secrets.entrySet()) {
      size += 8 + one.getKey().getBytes(StandardCharsets.UTF_8).length + one.getValue().length;
    }
    ByteBuffer open = ByteBuffer.allocate(size).putInt(secrets.size());
    secrets.forEach(
        (name, secret) -> {
          byte[] written = name.getBytes(StandardCharsets.UTF_8);
          open.putInt(written.length).put(written).putInt(secret.length).put(secret);
        });
    try {
      Cipher cipher = cipher(Cipher.ENCRYPT_MODE, key, nonce);
      cipher.updateAAD(head.array());
      byte[] sealed = cipher.doFinal(open.array());
      byte[] all = Arrays.copyOf(head.array(), HEAD + sealed.length);
      System.arraycopy(sealed, 0, all, HEAD, sealed.length);
      AtomicFile.write(file, all);
    } catch (GeneralSecurityException e) {
      throw new IOException("the vault could not be sealed", e);
    } finally {
      SecretBytes.wipe(open.array());
    }
  }

  private static byte[] random(int count) {
    byte[] bytes = new byte[count];
    new SecureRandom().nextBytes(bytes);
    return bytes;
  }

  /** Wipes what was in memory; the file stays. */
  @Override
  public synchronized void close() {
    secrets.values().forEach(SecretBytes::wipe);
    secrets.clear();
    SecretBytes.wipe(key);
    key = null;
  }
}
