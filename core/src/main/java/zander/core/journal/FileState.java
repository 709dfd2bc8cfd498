package zander.core.journal;

import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.rights.Mode;

/**
 * What something on a server was at a moment, as far as the journal needs it to put it back and to
 * see whether it was changed since.
 *
 * @param digest SHA-256 of the content in hexadecimal digits; of a folder that was made with all
 *     that is in it, its {@link zander.core.facts.TreeMark}; {@code null} when it was not read
 * @param target where a link points, in wire form; {@code null} for what is not a link
 */
public record FileState(
    RemoteAttributes attributes, @Nullable String digest, @Nullable String target) {

  public static FileState of(RemoteAttributes attributes) {
    return new FileState(attributes, null, null);
  }

  public FileState withDigest(@Nullable String other) {
    return new FileState(attributes, other, target);
  }

  public FileState withTarget(String other) {
    return new FileState(attributes, digest, other);
  }

  /** Whether owner, group and mode are the same. */
  public boolean hasRightsOf(RemoteAttributes now) {
    return attributes.uid() == now.uid()
        && attributes.gid() == now.gid()
        && attributes.mode().equals(now.mode());
  }

  /**
   * Whether what is there now can still be this: of the same kind and, for files, of the same size
   * and time. A folder's time tells of its entries, so that is compared too.
   */
  public boolean looksLike(RemoteAttributes now) {
    boolean file = attributes.kind() == FileKind.FILE;
    return attributes.kind() == now.kind()
        && (!file || attributes.size() == now.size())
        && attributes.modified() == now.modified();
  }

  /** {@code 0644}, for words. */
  public Mode mode() {
    return attributes.mode();
  }

  public FileKind kind() {
    return attributes.kind();
  }
}
