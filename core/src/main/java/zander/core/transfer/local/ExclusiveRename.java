package zander.core.transfer.local;

import java.io.IOException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.FileSystems;
import java.nio.file.Files;
import java.nio.file.Path;

/**
 * Gives files on this computer a name that must be free, in one step: a second name is made, which
 * fails where one is (POSIX link), and the first is taken away. For several threads.
 */
final class ExclusiveRename {
  /** Disks for other systems know no second names. */
  private volatile boolean links = true;

  /**
   * @throws FileAlreadyExistsException when the name is taken; nothing was moved then
   */
  void move(Path from, Path to) throws IOException {
    if (!links) {
      Files.move(from, to);
      return;
    }
    try {
      Files.createLink(to, from);
    } catch (FileAlreadyExistsException e) {
      throw e;
    } catch (IOException | UnsupportedOperationException e) {
      // Looks first and then renames: as good as it gets there. Tells what is wrong, if that is not
      // the disk's kind.
      Files.move(from, to);
      links = false;
      return;
    }
    boolean deleted = from.getFileSystem() == FileSystems.getDefault() && from.toFile().delete();
    if (!deleted) {
      Files.deleteIfExists(from);
    }
  }
}
