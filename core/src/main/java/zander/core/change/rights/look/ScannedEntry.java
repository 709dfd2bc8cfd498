package zander.core.change.rights.look;

import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.rights.Rights;

/**
 * One entry as a look through a tree found it, links not followed.
 *
 * @param path from the folder that is looked through, in wire form; empty for that folder itself
 * @param file what tells it from another one of the same name: the number of its inode; 0 where the
 *     server does not tell
 * @param device the number of the file system that the inode's number is of; 0 as well
 * @param elsewhere whether it is on another file system than what the look began at
 */
public record ScannedEntry(
    String path, FileKind kind, Rights rights, long file, long device, boolean elsewhere) {
  /** The path of the folder it is in; {@code null} for the one that is looked through. */
  public @Nullable String folder() {
    if (path.isEmpty()) {
      return null;
    }
    int slash = path.lastIndexOf('/');
    return slash < 0 ? "" : path.substring(0, slash);
  }
}
