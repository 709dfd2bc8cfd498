package zander.core.journal;

import java.io.Closeable;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;
import zander.core.work.AtomicFile;

/**
 * The files of one server's journal. Each running program appends to one of its own, {@code
 * journal-1.log} and so on, and holds a lock on it; it reads all. A lock ends with its program, so
 * what an unlocked file has under way was left so.
 */
final class JournalFiles implements Closeable {
  /** So many programs may have one server's journal open. */
  static final int MOST = 16;

  private final Path folder;
  private final int slot;
  private final FileChannel lockFile;
  private FileChannel log;

  private JournalFiles(Path folder, int slot, FileChannel lockFile) throws IOException {
    this.folder = folder;
    this.slot = slot;
    this.lockFile = lockFile;
    openLog();
  }

  static JournalFiles open(Path folder) throws IOException {
    for (int slot = 0; slot < MOST; slot++) {
      FileChannel lockFile = tryLock(folder, slot);
      if (lockFile != null) {
        return new JournalFiles(folder, slot, lockFile);
      }
    }
    throw new ExplainedException(KeptPhrase.JOURNAL_IN_USE.of(folder));
  }

  private static @Nullable FileChannel tryLock(Path folder, int slot) throws IOException {
    FileChannel channel =
        FileChannel.open(
            folder.resolve("journal-" + (slot + 1) + ".lock"),
            Set.of(StandardOpenOption.CREATE, StandardOpenOption.WRITE));
    FileLock lock = null;
    try {
      lock = channel.tryLock();
    } catch (OverlappingFileLockException e) {
      // Held by this very program.
    }
    if (lock == null) {
      channel.close();
      return null;
    }
    return channel;
  }

  private static Path logFile(Path folder, int slot) {
    return folder.resolve("journal-" + (slot + 1) + ".log");
  }

  private void openLog() throws IOException {
    log =
        FileChannel.open(
            logFile(folder, slot),
            Set.of(StandardOpenOption.CREATE, StandardOpenOption.APPEND),
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
    // A line cut off by a crash is ended, so that the next one stands alone.
    append("\n".getBytes(StandardCharsets.US_ASCII), false);
  }

  int slot() {
    return slot;
  }

  /**
   * The lines of one file.
   *
   * @param live whether another program is writing it
   */
  record Lines(boolean live, List<String> lines) {}

  List<Lines> read() throws IOException {
    List<Lines> all = new ArrayList<>();
    for (int other = 0; other < MOST; other++) {
      Path file = logFile(folder, other);
      if (Files.exists(file)) {
        // Any bytes are read, so that a damaged one spoils only its own line.
        String text = new String(Files.readAllBytes(file), StandardCharsets.UTF_8);
        all.add(new Lines(isLive(other), text.lines().filter(line -> !line.isBlank()).toList()));
      }
    }
    return all;
  }

  private boolean isLive(int other) throws IOException {
    if (other == slot) {
      return false;
    }
    try (FileChannel taken = tryLock(folder, other)) {
      return taken == null;
    }
  }

  void append(byte[] line, boolean sync) throws IOException {
    for (ByteBuffer left = ByteBuffer.wrap(line); left.hasRemaining(); ) {
      log.write(left);
    }
    if (sync) {
      log.force(false);
    }
  }

  /** Puts these lines in the place of all files that no other program writes. */
  void rewrite(byte[] lines) throws IOException {
    log.close();
    AtomicFile.write(logFile(folder, slot), lines);
    for (int other = 0; other < MOST; other++) {
      if (other != slot && Files.exists(logFile(folder, other)) && !isLive(other)) {
        Files.deleteIfExists(logFile(folder, other));
      }
    }
    openLog();
  }

  @Override
  public void close() throws IOException {
    log.close();
    lockFile.close();
  }
}
