package zander.desk.kept;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.Base64;
import org.jspecify.annotations.Nullable;
import zander.core.seal.ContentSeal;
import zander.core.seal.SealKeys;
import zander.core.vault.Vault;
import zander.core.work.SecretBytes;
import zander.desk.reach.Prompts;
import zander.desk.reach.VaultModel;
import zander.desk.words.Words;
import zander.desk.work.Background;

/**
 * The key of what is kept on this computer. It is in the vault, made when the vault is first open,
 * and is asked for only when something that an earlier run kept is to be read.
 */
public final class VaultKey implements ContentSeal.PrivateKey {
  /** Its name in the vault, which people see. */
  public static final String NAME = "key of what is kept on this computer";

  private final VaultModel vault;
  private final Prompts prompts;
  private final Background background;
  private final ContentSeal seal;

  /**
   * @param publicFile where the public key is kept
   * @param sealed told, on the thread that opened the vault, once what is kept can be sealed to
   *     last
   */
  public VaultKey(
      VaultModel vault, Prompts prompts, Background background, Path publicFile, Runnable sealed) {
    this.vault = vault;
    this.prompts = prompts;
    this.background = background;
    this.seal = new ContentSeal(publicFile, this);
    vault.whenOpened(
        opened -> {
          makeFor(opened);
          sealed.run();
        });
    vault.whenLocked(() -> background.run(seal::forget));
  }

  public ContentSeal seal() {
    return seal;
  }

  private void makeFor(Vault opened) throws IOException {
    byte[] made = SealKeys.newPrivate();
    char[] letters = letters(made);
    char[] there = opened.putIfAbsent(NAME, letters);
    byte[] key = bytes(there);
    try {
      seal.lastWith(SealKeys.publicOf(key));
    } finally {
      SecretBytes.wipe(made);
      SecretBytes.wipe(key);
      SecretBytes.wipe(letters);
      SecretBytes.wipe(there);
    }
  }

  private static char[] letters(byte[] key) {
    byte[] ascii = Base64.getEncoder().encode(key);
    CharBuffer decoded = StandardCharsets.US_ASCII.decode(ByteBuffer.wrap(ascii));
    char[] letters = Arrays.copyOf(decoded.array(), decoded.limit());
    SecretBytes.wipe(ascii);
    SecretBytes.wipe(decoded.array());
    return letters;
  }

  private static byte[] bytes(char[] letters) {
    byte[] ascii = SecretBytes.bytes(letters);
    try {
      return Base64.getDecoder().decode(ascii);
    } finally {
      SecretBytes.wipe(ascii);
    }
  }

  @Override
  public boolean mayBeThere() {
    return Vault.exists(vault.file());
  }

  @Override
  public byte @Nullable [] get(boolean mayAsk) {
    char[] letters =
        mayAsk
            ? vault.ask(NAME, Words.of(VaultKey.class).say("earlierRun"), prompts, background)
            : vault.getIfOpen(NAME);
    if (letters == null) {
      return null;
    }
    try {
      return bytes(letters);
    } finally {
      SecretBytes.wipe(letters);
    }
  }

  /** For threads that wait: asks for the vault, so that what is kept can be read. */
  public boolean open() {
    byte[] key = get(true);
    SecretBytes.wipe(key);
    return key != null;
  }
}
