package zander.core.files.sftp.channel;

import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * Finds where the file service begins to speak. Where it is a program, the account's shell starts
 * it, and what the start files print comes before its VERSION packet (draft-ietf-secsh-filexfer-02,
 * section 4). For one thread.
 */
final class SftpVersionScanner {
  /** A start file that prints more than this is not read over. */
  private static final int MOST_BEFORE = 64 * 1024;

  /** Length, type and number: as much as tells the packet from text. */
  private static final int HEAD = 9;

  private static final int VERSION = 2;
  private static final int HIGHEST_NUMBER = 6;

  private byte[] seen = {};
  private int foundAt = -1;

  /**
   * Takes what has come.
   *
   * @return everything from the packet on, once it is found; {@code null} before
   */
  byte @Nullable [] take(byte[] data, int offset, int length) {
    int old = seen.length;
    seen = Arrays.copyOf(seen, old + length);
    System.arraycopy(data, offset, seen, old, length);
    for (int at = Math.max(0, old - HEAD + 1); at + HEAD <= seen.length; at++) {
      if (isHead(at)) {
        foundAt = at;
        return Arrays.copyOfRange(seen, at, seen.length);
      }
    }
    return null;
  }

  private boolean isHead(int at) {
    int length = ((seen[at + 2] & 0xff) << 8) | (seen[at + 3] & 0xff);
    return seen[at] == 0
        && seen[at + 1] == 0
        && length >= HEAD - 4
        && seen[at + 4] == VERSION
        && seen[at + 5] == 0
        && seen[at + 6] == 0
        && seen[at + 7] == 0
        && seen[at + 8] > 0
        && seen[at + 8] <= HIGHEST_NUMBER;
  }

  /** Whether so much came before it that it is not looked for any longer. */
  boolean isTooMuch() {
    return foundAt < 0 && seen.length > MOST_BEFORE;
  }

  /** What was printed before the packet, its first lines. */
  String printed() {
    int end = foundAt < 0 ? seen.length : foundAt;
    return FileServiceMissing.plain(Arrays.copyOf(seen, end));
  }
}
