package zander.core.connect.keys;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.util.Set;
import org.apache.sshd.common.config.keys.KeyUtils;
import org.apache.sshd.common.config.keys.writer.openssh.OpenSSHKeyPairResourceWriter;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeyFilePhrase;
import zander.core.trust.WireKey;
import zander.core.work.BlockingCalls;
import zander.core.work.SecretBytes;

/** Makes key pairs and writes them in the form that OpenSSH reads. */
public final class KeyMaker {
  /** The kinds of keys that are made, the recommended one first. */
  public enum Kind {
    ED25519("ssh-ed25519", 256),
    ECDSA("ecdsa-sha2-nistp256", 256),
    RSA("ssh-rsa", 3072);

    private final String type;
    private final int bits;

    Kind(String type, int bits) {
      this.type = type;
      this.bits = bits;
    }
  }

  private KeyMaker() {}

  /**
   * Makes a pair: the private half in {@code file}, closed to others, the public one beside it
   * under {@code .pub}. Waits for the processor and the disk.
   *
   * @param passphrase left as it is; empty for none
   * @return the public half
   * @throws FileAlreadyExistsException when either file is there; nothing is ever overwritten
   */
  public static PublicKeyLine make(Kind kind, String comment, char[] passphrase, Path file)
      throws IOException {
    BlockingCalls.check("making a key");
    Path open = file.resolveSibling(file.getFileName() + ".pub");
    for (Path taken : new Path[] {file, open}) {
      if (Files.exists(taken, java.nio.file.LinkOption.NOFOLLOW_LINKS)) {
        throw new FileAlreadyExistsException(taken.toString());
      }
    }
    byte[] text = null;
    try {
      KeyPair pair = KeyUtils.generateKeyPair(kind.type, kind.bits);
      PublicKeyLine line = new PublicKeyLine(blob(pair), comment);
      text = locked(pair, comment, passphrase);
      Files.createDirectories(
          file.toAbsolutePath().getParent(),
          PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
      write(file, text, "rw-------");
      write(open, (line.text() + "\n").getBytes(StandardCharsets.UTF_8), "rw-r--r--");
      return line;
    } catch (GeneralSecurityException e) {
      throw new ExplainedException(KeyFilePhrase.NOT_MADE.of(), e);
    } finally {
      SecretBytes.wipe(text);
    }
  }

  /** The public half of a pair in wire form. */
  public static WireKey blob(KeyPair pair) {
    ByteArrayBuffer buffer = new ByteArrayBuffer();
    buffer.putRawPublicKey(pair.getPublic());
    return WireKey.ofBlob(buffer.getCompactData());
  }

  private static byte[] locked(KeyPair pair, String comment, char[] passphrase)
      throws IOException, GeneralSecurityException {
    ByteArrayOutputStream plain = new ByteArrayOutputStream();
    OpenSSHKeyPairResourceWriter.INSTANCE.writePrivateKey(pair, comment, null, plain);
    byte[] text = plain.toByteArray();
    if (passphrase.length == 0) {
      return text;
    }
    byte[] letters = SecretBytes.bytes(passphrase);
    OpenSshPrivateKey box = OpenSshPrivateKey.parse(new String(text, StandardCharsets.US_ASCII));
    try {
      return box.lock(letters).text();
    } finally {
      box.wipe();
      SecretBytes.wipe(letters);
      SecretBytes.wipe(text);
    }
  }

  private static void write(Path file, byte[] content, String mode) throws IOException {
    try (var out =
        Files.newByteChannel(
            file,
            Set.of(StandardOpenOption.CREATE_NEW, StandardOpenOption.WRITE),
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString(mode)))) {
      out.write(java.nio.ByteBuffer.wrap(content));
    }
  }
}
