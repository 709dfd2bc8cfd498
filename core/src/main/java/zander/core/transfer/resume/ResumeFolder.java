package zander.core.transfer.resume;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import zander.core.seal.ContentSeal;
import zander.core.seal.StillSealed;

/**
 * The folder in which transfers are written down, a file each.
 *
 * @param path need not be there yet
 * @param seal seals what is written, where there is a vault
 */
public record ResumeFolder(Path path, ContentSeal seal) {
  private static final String END = ".log";

  /** Begins the file of a new transfer. */
  public ResumeLogFile begin(SavedTransfer transfer) throws IOException {
    return ResumeLogFile.begin(path, transfer, seal);
  }

  /**
   * Reads one that was written, to look at it or to go on with it.
   *
   * @param mayAsk whether the person may be asked to open the vault, for which this waits
   * @return {@code null} when the file is not one of these
   * @throws StillSealed when it is sealed and the vault is closed, or its key gone
   */
  public @Nullable ResumeLogFile read(Path file, boolean mayAsk) throws IOException {
    return ResumeLogFile.read(file, seal, mayAsk);
  }

  /** All files, the newest first. Waits for the disk. */
  public List<Path> files() throws IOException {
    if (!Files.isDirectory(path)) {
      return List.of();
    }
    try (Stream<Path> all = Files.list(path)) {
      return all.filter(file -> file.toString().endsWith(END))
          .sorted(Comparator.reverseOrder())
          .toList();
    }
  }
}
