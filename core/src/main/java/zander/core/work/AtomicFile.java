package zander.core.work;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermission;
import java.nio.file.attribute.PosixFilePermissions;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Set;

/**
 * Writes a file of this computer whole or not at all: beside, synced, and renamed over. A new file
 * is closed to others, and so is a folder that is made for it; one that was there keeps its mode.
 */
public final class AtomicFile {
  private AtomicFile() {}

  /** Waits for the disk. */
  public static void write(Path file, byte[] content) throws IOException {
    BlockingCalls.check("writing a file");
    Set<PosixFilePermission> mode =
        Files.exists(file)
            ? Files.getPosixFilePermissions(file)
            : PosixFilePermissions.fromString("rw-------");
    Path folder = file.toAbsolutePath().getParent();
    Files.createDirectories(
        folder, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rwx------")));
    Path part = Files.createTempFile(folder, "." + file.getFileName(), ".part");
    try {
      try (FileChannel out = FileChannel.open(part, StandardOpenOption.WRITE)) {
        for (ByteBuffer left = ByteBuffer.wrap(content); left.hasRemaining(); ) {
          out.write(left);
        }
        out.force(true);
      }
      Files.setPosixFilePermissions(part, mode);
      Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
    } finally {
      Files.deleteIfExists(part);
    }
  }

  /** Gives a file that cannot be read another name beside it, so that it is never written over. */
  public static void putAside(Path file) throws IOException {
    String time = LocalDateTime.now().format(DateTimeFormatter.ofPattern("yyyyMMdd-HHmmss"));
    Path aside = file.resolveSibling(file.getFileName() + ".kept-" + time);
    for (int number = 2; Files.exists(aside); number++) {
      aside = file.resolveSibling(file.getFileName() + ".kept-" + time + "-" + number);
    }
    Files.move(file, aside);
  }
}
