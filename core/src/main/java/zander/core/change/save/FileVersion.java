package zander.core.change.save;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.HexFormat;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemotePath;

/**
 * A file as it was when it was read or written: what a later save must find unchanged.
 *
 * @param asked the path the person opened, maybe a link
 * @param real the file itself, links resolved; this is what is replaced
 * @param digest SHA-256 of the content
 * @param perhaps SHA-256 of content that a save may have put there whose answer was lost, or {@code
 *     null}
 */
public record FileVersion(
    RemotePath asked,
    RemotePath real,
    RemoteAttributes attributes,
    byte[] digest,
    byte @Nullable [] perhaps) {
  /** What {@link #digestText()} is of an empty file. */
  public static final String DIGEST_OF_NOTHING = digestText(new byte[0]);

  public static FileVersion of(
      RemotePath asked, RemotePath real, RemoteAttributes attributes, byte[] content) {
    return new FileVersion(asked, real, attributes, digestOf(content), null);
  }

  public boolean hasContent(byte[] content) {
    byte[] found = digestOf(content);
    return Arrays.equals(digest, found) || Arrays.equals(perhaps, found);
  }

  /** SHA-256 of the content in hexadecimal digits. */
  public String digestText() {
    return HexFormat.of().formatHex(digest);
  }

  /** The same of another content. */
  static String digestText(byte[] content) {
    return HexFormat.of().formatHex(digestOf(content));
  }

  /**
   * The same after a save whose last answer was lost: the server has this version or that content,
   * and neither is another person's change.
   */
  public FileVersion orPerhaps(byte[] content) {
    return new FileVersion(asked, real, attributes, digest, digestOf(content));
  }

  public static byte[] digestOf(byte[] content) {
    try {
      return MessageDigest.getInstance("SHA-256").digest(content);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }
}
