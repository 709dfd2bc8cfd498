package zander.core.transfer.rules;

import java.util.Objects;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.transfer.endpoint.TreeEntry;

/** How something that would be transferred stands against what is there. */
public enum Comparison {
  /** Nothing is there. */
  NEW,
  /** Of the same kind, size and time, or a link to the same target. */
  SAME,
  /** What would come was changed later than what is there. */
  NEWER,
  /** What is there was changed later. */
  OLDER,
  /** Changed at the same second, and of another size. */
  DIFFERS,
  /** A folder where a file should be, or the other way round. */
  IN_THE_WAY;

  /**
   * @param there {@code null} for nothing
   */
  public static Comparison of(TreeEntry coming, @Nullable TreeEntry there) {
    if (there == null) {
      return NEW;
    }
    boolean folder = coming.kind() == FileKind.FOLDER;
    if (folder != (there.kind() == FileKind.FOLDER)) {
      return IN_THE_WAY;
    }
    if (folder) {
      return SAME;
    }
    if (coming.kind() == FileKind.LINK && there.kind() == FileKind.LINK) {
      return Objects.equals(coming.target(), there.target()) ? SAME : DIFFERS;
    }
    if (coming.kind() != there.kind()) {
      return DIFFERS;
    }
    if (coming.modified() == there.modified()) {
      return coming.size() == there.size() ? SAME : DIFFERS;
    }
    return coming.modified() > there.modified() ? NEWER : OLDER;
  }
}
