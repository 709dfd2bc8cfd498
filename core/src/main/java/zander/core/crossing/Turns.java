package zander.core.crossing;

import java.io.IOException;

/**
 * The order of loads that go through one stream: what was asked first is answered first. For
 * several threads.
 */
final class Turns {
  private long given;
  private long now;
  private boolean ended;

  synchronized long take() {
    return given++;
  }

  /** How many have a turn and are not done. */
  synchronized long waiting() {
    return given - now;
  }

  /** Waits until all before it are done. */
  synchronized void await(long turn) throws IOException {
    try {
      while (now != turn && !ended) {
        wait();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
    if (ended) {
      throw new IOException("the stream ended");
    }
  }

  synchronized void done() {
    now++;
    notifyAll();
  }

  /** Nobody waits any more. */
  synchronized void end() {
    ended = true;
    notifyAll();
  }
}
