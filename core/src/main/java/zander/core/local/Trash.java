package zander.core.local;

import java.io.IOException;
import java.net.URI;
import java.nio.file.AtomicMoveNotSupportedException;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;
import zander.core.work.BlockingCalls;

/**
 * The desktop's trash of this account, by the freedesktop.org trash specification 1.0: what is in
 * it can be restored by the desktop's file manager. Only on the file system of the home folder.
 */
public final class Trash {
  private static final int MOST_TRIES = 10_000;

  private final Path files;
  private final Path info;

  /**
   * @param dataHome {@code XDG_DATA_HOME}, usually {@code ~/.local/share}
   */
  public Trash(Path dataHome) {
    files = dataHome.resolve("Trash/files");
    info = dataHome.resolve("Trash/info");
  }

  /**
   * Moves a file, a link or a folder into the trash.
   *
   * @throws AtomicMoveNotSupportedException when it is on another file system; nothing is changed
   */
  public void put(Path path) throws IOException {
    BlockingCalls.check("moving to the trash");
    var closed = PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------"));
    Files.createDirectories(files, closed);
    Files.createDirectories(info, closed);
    Path from = path.toAbsolutePath();
    String text =
        "[Trash Info]\nPath="
            + encoded(from)
            + "\nDeletionDate="
            + LocalDateTime.now()
                .truncatedTo(ChronoUnit.SECONDS)
                .format(DateTimeFormatter.ISO_LOCAL_DATE_TIME)
            + "\n";
    String name = from.getFileName().toString();
    for (int number = 1; number < MOST_TRIES; number++) {
      String tried = number == 1 ? name : name + "." + number;
      Path told = info.resolve(tried + ".trashinfo");
      try {
        // Making this file first takes the name: two programs cannot have it at once.
        Files.writeString(told, text, StandardOpenOption.CREATE_NEW);
      } catch (FileAlreadyExistsException e) {
        continue;
      }
      if (Files.exists(files.resolve(tried), LinkOption.NOFOLLOW_LINKS)) {
        Files.delete(told);
        continue;
      }
      try {
        Files.move(from, files.resolve(tried), StandardCopyOption.ATOMIC_MOVE);
        return;
      } catch (IOException e) {
        Files.deleteIfExists(told);
        throw e;
      }
    }
    throw new ExplainedException(KeptPhrase.TRASH_FULL_OF.of(name));
  }

  private static String encoded(Path path) {
    try {
      return new URI(null, null, path.toString(), null).toASCIIString();
    } catch (java.net.URISyntaxException e) {
      throw new IllegalArgumentException(path.toString(), e);
    }
  }
}
