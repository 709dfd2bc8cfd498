package zander.core.files;

import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;

/**
 * A file as it was when it was read or written: what a later save must find unchanged.
 *
 * @param asked the path the person opened, maybe a link
 * @param real the file itself, links resolved; this is what is replaced
 * @param digest SHA-256 of the content
 */
public record FileVersion(
    RemotePath asked, RemotePath real, RemoteAttributes attributes, byte[] digest) {

  static FileVersion of(
      RemotePath asked, RemotePath real, RemoteAttributes attributes, byte[] content) {
    return new FileVersion(asked, real, attributes, digestOf(content));
  }

  boolean hasContent(byte[] content) {
    return Arrays.equals(digest, digestOf(content));
  }

  private static byte[] digestOf(byte[] content) {
    try {
      return MessageDigest.getInstance("SHA-256").digest(content);
    } catch (NoSuchAlgorithmException e) {
      throw new IllegalStateException(e);
    }
  }
}
