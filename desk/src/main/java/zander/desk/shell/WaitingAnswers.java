package zander.desk.shell;

import java.util.concurrent.atomic.AtomicInteger;

/**
 * How much of what a terminal answers still waits for its shell to take it. A program that asks
 * without end and reads nothing is answered no more: else its questions would fill the memory here.
 */
final class WaitingAnswers {
  /** In bytes: some thousand answers. */
  static final int MOST = 64 * 1024;

  private final AtomicInteger bytes = new AtomicInteger();

  /** Whether so many bytes may wait as well; they do from now on if so. */
  boolean begin(int count) {
    return bytes.getAndUpdate(now -> now + count <= MOST ? now + count : now) + count <= MOST;
  }

  /** So many wait no more. */
  void done(int count) {
    bytes.addAndGet(-count);
  }
}
