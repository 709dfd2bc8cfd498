package zander.core.vault;

import java.io.Closeable;
import java.io.IOException;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import java.util.TreeSet;
import javax.crypto.AEADBadTagException;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.bouncycastle.crypto.generators.Argon2BytesGenerator;
import org.bouncycastle.crypto.params.Argon2Parameters;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;
import zander.core.phrase.KeyFilePhrase;
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
  /** RFC 9106, section 4, the second recommended option: 64 MiB and three passes. */
  private static final int MEMORY = 64 * 1024;

  private static final int PASSES = 3;
  private static final long LARGEST = 16 << 20;

  /**
   * One program's own vaults do not write at once either: a lock of the system is the program's.
   */
  private static final Object WRITING = new Object();

  private final Path file;
  private final Map<String, byte[]> secrets = new TreeMap<>();
  private final VaultHead head;
  private byte @Nullable [] key;

  private Vault(Path file, byte[] key, VaultHead head) {
    this.file = file;
    this.key = key;
    this.head = head;
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
    return create(file, master, MEMORY, PASSES);
  }

  /** The same with other costs; a vault keeps those that it was made with. */
  static Vault create(Path file, char[] master, int memory, int passes) throws IOException {
    BlockingCalls.check("making a vault");
    if (exists(file)) {
      throw new java.nio.file.FileAlreadyExistsException(file.toString());
    }
    VaultHead head = new VaultHead(memory, passes, random(VaultHead.SALT), random(VaultHead.NONCE));
    Vault vault = new Vault(file, derive(master, head), head);
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
    byte[] all = read(file);
    VaultHead head = VaultHead.of(all);
    Vault vault = new Vault(file, derive(master, head), head);
    try {
      vault.unseal(head, all);
      return vault;
    } catch (VaultFailure e) {
      vault.close();
      throw e;
    }
  }

  private static byte[] read(Path file) throws IOException {
    if (Files.size(file) > LARGEST) {
      throw new VaultFailure(Reason.DAMAGED, KeyFilePhrase.VAULT_TOO_LARGE.of(), null);
    }
    return Files.readAllBytes(file);
  }

  /** Takes what is in the file for what there is. */
  private void unseal(VaultHead now, byte[] all) throws VaultFailure {
    byte[] open = null;
    try {
      Cipher cipher = cipher(Cipher.DECRYPT_MODE, key, now.nonce());
      cipher.updateAAD(all, 0, VaultHead.BYTES);
      open = cipher.doFinal(all, VaultHead.BYTES, all.length - VaultHead.BYTES);
      Map<String, byte[]> found = parse(open);
      secrets.values().forEach(SecretBytes::wipe);
      secrets.clear();
      secrets.putAll(found);
    } catch (AEADBadTagException e) {
      throw new VaultFailure(Reason.WRONG_PASSPHRASE, KeyFilePhrase.WRONG_OR_CHANGED.of(), e);
    } catch (GeneralSecurityException | BufferUnderflowException e) {
      throw new VaultFailure(Reason.DAMAGED, KeyFilePhrase.UNREADABLE_CONTENT.of(), e);
    } finally {
      SecretBytes.wipe(open);
    }
  }

  private static byte[] derive(char[] master, VaultHead head) {
    byte[] letters = SecretBytes.bytes(master);
    try {
      Argon2BytesGenerator generator = new Argon2BytesGenerator();
      generator.init(
          new Argon2Parameters.Builder(Argon2Parameters.ARGON2_id)
              .withVersion(Argon2Parameters.ARGON2_VERSION_13)
              .withMemoryAsKB(head.memory())
              .withIterations(head.passes())
              .withParallelism(1)
              .withSalt(head.salt())
              .build());
      byte[] key = new byte[32];
      generator.generateBytes(letters, key);
      return key;
    } finally {
      SecretBytes.wipe(letters);
    }
  }

  private static Cipher cipher(int mode, byte @Nullable [] key, byte[] nonce)
      throws GeneralSecurityException {
    Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
    cipher.init(
        mode,
        new SecretKeySpec(Objects.requireNonNull(key), "AES"),
        new GCMParameterSpec(128, nonce));
    return cipher;
  }

  private static Map<String, byte[]> parse(byte[] open) {
    Map<String, byte[]> found = new TreeMap<>();
    ByteBuffer from = ByteBuffer.wrap(open);
    for (int left = from.getInt(); left > 0; left--) {
      String name = new String(bytes(from), StandardCharsets.UTF_8);
      found.put(name, bytes(from));
    }
    return found;
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
  public synchronized char @Nullable [] get(String name) {
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
  public void put(String name, char[] secret) throws IOException {
    change(() -> SecretBytes.wipe(secrets.put(name, SecretBytes.bytes(secret))));
  }

  /**
   * Keeps a secret, left as it is, unless there is one of that name, and gives what there is then:
   * a copy for the caller to wipe.
   */
  public char[] putIfAbsent(String name, char[] secret) throws IOException {
    char[] there = get(name);
    if (there != null) {
      return there;
    }
    change(() -> secrets.computeIfAbsent(name, absent -> SecretBytes.bytes(secret)));
    return Objects.requireNonNull(get(name), "it was just kept");
  }

  /** Forgets a secret and writes the file. */
  public void remove(String name) throws IOException {
    change(() -> SecretBytes.wipe(secrets.remove(name)));
  }

  /**
   * Changes what is in the file now: another program may have kept something in it since it was
   * opened here.
   */
  private void change(Runnable change) throws IOException {
    BlockingCalls.check("changing the vault");
    Path lock = file.resolveSibling(file.getFileName() + ".lock");
    synchronized (WRITING) {
      try (FileChannel channel =
              FileChannel.open(lock, StandardOpenOption.CREATE, StandardOpenOption.WRITE);
          FileLock held = channel.lock()) {
        synchronized (this) {
          if (!held.isValid() || key == null) {
            throw new ExplainedException(KeptPhrase.VAULT_CLOSED.of());
          }
          if (exists(file)) {
            byte[] all = read(file);
            VaultHead now = VaultHead.of(all);
            if (!now.hasKeyOf(head)) {
              throw new VaultFailure(
                  Reason.WRONG_PASSPHRASE, KeyFilePhrase.ANOTHER_VAULT.of(), null);
            }
            unseal(now, all);
          }
          change.run();
          write();
        }
      }
    }
  }

  private synchronized void write() throws IOException {
    VaultHead next = head.with(random(VaultHead.NONCE));
    byte[] before = next.bytes();
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
      Cipher cipher = cipher(Cipher.ENCRYPT_MODE, key, next.nonce());
      cipher.updateAAD(before);
      byte[] sealed = cipher.doFinal(open.array());
      byte[] all = Arrays.copyOf(before, before.length + sealed.length);
      System.arraycopy(sealed, 0, all, before.length, sealed.length);
      AtomicFile.write(file, all);
    } catch (GeneralSecurityException e) {
      throw new ExplainedException(KeptPhrase.NOT_SEALED.of(), e);
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
