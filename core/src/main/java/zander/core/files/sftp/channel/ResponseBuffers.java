package zander.core.files.sftp.channel;

import java.util.ArrayDeque;
import java.util.Deque;

/**
 * Memory of large answers that were read to their end: new memory must be cleared first, which
 * takes longer than using it again. For any thread.
 */
final class ResponseBuffers {
  /** Shorter messages are not worth keeping. */
  private static final int WORTH_KEEPING = 128 * 1024;

  private static final int MOST_KEPT = 8;

  private final Deque<byte[]> spare = new ArrayDeque<>();

  /** At least as many bytes; what is in them is of no meaning. */
  byte[] take(int length) {
    if (length >= WORTH_KEEPING) {
      synchronized (spare) {
        byte[] last = spare.peekLast();
        if (last != null && last.length >= length) {
          return spare.removeLast();
        }
      }
    }
    return new byte[length];
  }

  void recycle(byte[] answer) {
    if (answer.length >= WORTH_KEEPING) {
      synchronized (spare) {
        if (spare.size() < MOST_KEPT) {
          spare.addLast(answer);
        }
      }
    }
  }
}
