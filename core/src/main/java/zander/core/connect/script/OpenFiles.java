package zander.core.connect.script;

import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * What is open by the numbers that {@code sh} has for it, of which there are few: POSIX lets a
 * redirection name one digit (XCU 2.7). Not safe for several threads.
 */
final class OpenFiles {
  private static final int FIRST = 3;
  private static final int LAST = 9;

  /** Of one folder, which is listed whole: some 500,000 entries. */
  private static final long MOST_BYTES = 32L << 20;

  /** An open file. */
  static final class Open {
    final int number;

    /** Where the next byte goes that is written. */
    long position;

    Open(int number) {
      this.number = number;
    }
  }

  /** A folder whose entries have been read, as far as they were not fetched yet. */
  static final class Listed {
    final Deque<byte[]> entries = new ArrayDeque<>();

    /** Of all that was listed. */
    private long bytes;

    /**
     * @throws IllegalStateException when they are more than are kept in memory
     */
    void add(byte[] entry) {
      bytes += entry.length;
      if (bytes > MOST_BYTES) {
        throw new IllegalStateException("more entries than a script can list");
      }
      entries.add(entry);
    }
  }

  private final Deque<Integer> free = new ArrayDeque<>();
  private final Map<String, Open> files = new HashMap<>();
  private final Map<String, Listed> folders = new HashMap<>();
  private long handles;

  OpenFiles() {
    for (int number = FIRST; number <= LAST; number++) {
      free.add(number);
    }
  }

  /**
   * @return a handle; {@code null} when none is free
   */
  byte @Nullable [] openFile() {
    Integer number = free.poll();
    if (number == null) {
      return null;
    }
    String handle = "f" + handles++;
    files.put(handle, new Open(number));
    return bytes(handle);
  }

  byte[] openFolder() {
    String handle = "d" + handles++;
    folders.put(handle, new Listed());
    return bytes(handle);
  }

  private static byte[] bytes(String handle) {
    return handle.getBytes(StandardCharsets.ISO_8859_1);
  }

  private static String text(byte[] handle) {
    return new String(handle, StandardCharsets.ISO_8859_1);
  }

  /** {@code null} for none. */
  @Nullable Open file(byte[] handle) {
    return files.get(text(handle));
  }

  /** {@code null} for none. */
  @Nullable Listed folder(byte[] handle) {
    return folders.get(text(handle));
  }

  /** Of a file, its number may be given to another at once: what is written goes in order. */
  void close(byte[] handle) {
    Open file = files.remove(text(handle));
    if (file != null) {
      free.add(file.number);
    }
    folders.remove(text(handle));
  }
}
