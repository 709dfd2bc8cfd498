package zander.core.seal;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Arrays;
import java.util.Objects;
import javax.crypto.AEADBadTagException;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;
import zander.core.work.AtomicFile;
import zander.core.work.BlockingCalls;
import zander.core.work.SecretBytes;

/**
 * Seals what is kept on this computer. One run of the program seals with one key of its own
 * (AES-256-GCM), so sealing asks nobody, and the same run opens again what it sealed. Where there
 * is a vault, that key is sealed in turn for the pair of keys in the vault and goes along with each
 * content, so that any later run opens it once the vault is open. Where there is none, the key ends
 * with the run. Safe for several threads; all methods may wait for the disk.
 */
public final class ContentSeal {
  /** Whoever has the private key. */
  public interface PrivateKey {
    /** Whether there may be one: with a vault that was thrown away, nothing can be opened again. */
    boolean mayBeThere();

    /**
     * The private key, for the caller to wipe; {@code null} when there is none to be had.
     *
     * @param mayAsk whether the person may be asked to open the vault, for which this waits
     */
    byte @Nullable [] get(boolean mayAsk);
  }

  private static final int KEY = 32;
  private static final int TAG_BITS = 128;
  private static final SecureRandom RANDOM = new SecureRandom();

  private final @Nullable Path publicFile;
  private final PrivateKey privateKey;
  private boolean looked;
  private byte @Nullable [] publicKey;
  private byte[] run = random(SealKeys.ID);
  private byte[] key = random(KEY);
  private byte @Nullable [] wrapped;

  /** The last key of another run that was opened: a list has one in each of its lines. */
  private byte @Nullable [] otherWrapped;

  private byte @Nullable [] otherKey;

  /**
   * @param publicFile where the public key is, in clear; need not be there
   */
  public ContentSeal(@Nullable Path publicFile, PrivateKey privateKey) {
    this.publicFile = publicFile;
    this.privateKey = privateKey;
  }

  /** One whose key ends with this object. */
  public static ContentSeal ofThisRun() {
    return new ContentSeal(
        null,
        new PrivateKey() {
          @Override
          public boolean mayBeThere() {
            return false;
          }

          @Override
          public byte @Nullable [] get(boolean mayAsk) {
            return null;
          }
        });
  }

  /** Whether what is sealed now can be opened by later runs of the program. */
  public synchronized boolean lasts() throws IOException {
    BlockingCalls.check("looking for the public key");
    if (!looked) {
      looked = true;
      if (publicFile != null && Files.exists(publicFile) && privateKey.mayBeThere()) {
        byte[] found = Files.readAllBytes(publicFile);
        publicKey = found.length == SealKeys.PUBLIC ? found : null;
      }
    }
    return publicKey != null;
  }

  /** From now on, what is sealed lasts: the vault has the private key of this public one. */
  public synchronized void lastWith(byte[] vaultsKey) throws IOException {
    if (lasts() && Arrays.equals(publicKey, vaultsKey)) {
      return;
    }
    AtomicFile.write(Objects.requireNonNull(publicFile), vaultsKey);
    publicKey = vaultsKey.clone();
    wrapped = null;
  }

  /** Forgets the key of this run: what it sealed is opened by the vault alone, or no more. */
  public synchronized void forget() {
    SecretBytes.wipe(key);
    SecretBytes.wipe(otherKey);
    otherKey = null;
    otherWrapped = null;
    run = random(SealKeys.ID);
    key = random(KEY);
    wrapped = null;
  }

  /**
   * Seals a content.
   *
   * @param about what it is, which has to be said again to open it: none can be given for another
   */
  public byte[] seal(byte[] content, String about) throws IOException {
    SealedHead head;
    byte[] with;
    synchronized (this) {
      byte[] vaults = lasts() ? publicKey : null;
      if (vaults == null) {
        head = new SealedHead(false, run, new byte[0], random(SealedHead.NONCE));
      } else {
        byte[] ours = wrapped == null ? SealKeys.wrap(vaults, key) : wrapped;
        wrapped = ours;
        head = new SealedHead(true, SealKeys.id(vaults), ours, random(SealedHead.NONCE));
      }
      with = key.clone();
    }
    try {
      byte[] before = head.bytes();
      Cipher cipher = cipher(Cipher.ENCRYPT_MODE, with, head, before, about);
      byte[] all = Arrays.copyOf(before, before.length + cipher.getOutputSize(content.length));
      cipher.doFinal(content, 0, content.length, all, before.length);
      return all;
    } catch (GeneralSecurityException e) {
      throw new ExplainedException(KeptPhrase.NOT_SEALED.of(), e);
    } finally {
      SecretBytes.wipe(with);
    }
  }

  private static Cipher cipher(int mode, byte[] key, SealedHead head, byte[] before, String about)
      throws GeneralSecurityException {
    Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
    cipher.init(mode, new SecretKeySpec(key, "AES"), new GCMParameterSpec(TAG_BITS, head.nonce()));
    cipher.updateAAD(before);
    cipher.updateAAD(about.getBytes(StandardCharsets.UTF_8));
    return cipher;
  }

  /** Whether these bytes, or the head of them, are of something sealed. */
  public static boolean isSealed(byte[] bytes) {
    return SealedHead.of(bytes) != null;
  }

  /** Whether nobody can open it any more: its key was one of another run, and of no vault. */
  public synchronized boolean isLost(byte[] sealed) {
    SealedHead head = SealedHead.of(sealed);
    return head != null && !head.lasts() && !Arrays.equals(head.id(), run);
  }

  /** Whether it can be opened by this run alone. */
  public static boolean endsWithItsRun(byte[] sealed) {
    SealedHead head = SealedHead.of(sealed);
    return head != null && !head.lasts();
  }

  /**
   * Opens what was sealed.
   *
   * @param mayAsk whether the person may be asked to open the vault, for which this waits
   * @throws StillSealed when it cannot be opened now, or not at all
   */
  public byte[] open(byte[] sealed, String about, boolean mayAsk) throws StillSealed {
    SealedHead head = SealedHead.of(sealed);
    if (head == null || sealed.length < head.length() + TAG_BITS / 8) {
      throw new StillSealed(StillSealed.Reason.DAMAGED, null);
    }
    byte[] with = keyOf(head, mayAsk);
    try {
      byte[] before = Arrays.copyOf(sealed, head.length());
      return cipher(Cipher.DECRYPT_MODE, with, head, before, about)
          .doFinal(sealed, before.length, sealed.length - before.length);
    } catch (AEADBadTagException e) {
      throw new StillSealed(StillSealed.Reason.DAMAGED, e);
    } catch (GeneralSecurityException e) {
      throw new IllegalStateException(e);
    } finally {
      SecretBytes.wipe(with);
    }
  }

  private byte[] keyOf(SealedHead head, boolean mayAsk) throws StillSealed {
    synchronized (this) {
      boolean ofThisRun =
          head.lasts() ? Arrays.equals(head.wrapped(), wrapped) : Arrays.equals(head.id(), run);
      if (ofThisRun) {
        return key.clone();
      }
      if (otherKey != null && head.lasts() && Arrays.equals(head.wrapped(), otherWrapped)) {
        return otherKey.clone();
      }
    }
    if (!head.lasts()) {
      throw new StillSealed(StillSealed.Reason.KEY_GONE, null);
    }
    byte[] secret = privateKey.get(mayAsk);
    if (secret == null) {
      throw new StillSealed(
          privateKey.mayBeThere() ? StillSealed.Reason.VAULT_CLOSED : StillSealed.Reason.KEY_GONE,
          null);
    }
    try {
      if (!Arrays.equals(head.id(), SealKeys.id(SealKeys.publicOf(secret)))) {
        throw new StillSealed(StillSealed.Reason.KEY_GONE, null);
      }
      byte[] opened = SealKeys.unwrap(secret, head.wrapped());
      synchronized (this) {
        SecretBytes.wipe(otherKey);
        otherKey = opened.clone();
        otherWrapped = head.wrapped();
      }
      return opened;
    } finally {
      SecretBytes.wipe(secret);
    }
  }

  private static byte[] random(int count) {
    byte[] bytes = new byte[count];
    RANDOM.nextBytes(bytes);
    return bytes;
  }
}
