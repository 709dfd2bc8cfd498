package zander.core.transfer.progress;

import java.util.concurrent.CancellationException;
import zander.core.work.Cancellation;

/** Holds a transfer back: while it is paused, and to the rate that it may have. For any thread. */
public final class RateLimiter {
  private static final long NANOS = 1_000_000_000L;

  private boolean paused;
  private boolean stopped;
  private long bytesASecond;
  private long free = System.nanoTime();

  public RateLimiter(Cancellation cancellation) {
    cancellation.onStop(this::stop);
  }

  private synchronized void stop() {
    stopped = true;
    notifyAll();
  }

  public synchronized void pause(boolean wanted) {
    paused = wanted;
    notifyAll();
  }

  public synchronized boolean isPaused() {
    return paused;
  }

  /**
   * @param bytes a second, 0 for as many as the line takes
   */
  public synchronized void limit(long bytes) {
    bytesASecond = bytes;
    free = System.nanoTime();
    notifyAll();
  }

  public synchronized long limit() {
    return bytesASecond;
  }

  /**
   * Waits until so many bytes may go.
   *
   * @throws CancellationException when the transfer was stopped
   */
  public synchronized void pass(long bytes) {
    try {
      while (!stopped) {
        long now = System.nanoTime();
        if (paused) {
          wait();
        } else if (bytesASecond > 0 && free > now) {
          long left = free - now;
          wait(left / 1_000_000, (int) (left % 1_000_000));
        } else {
          if (bytesASecond > 0) {
            // What was not used while nothing went is not saved up.
            free = Math.max(free, now - NANOS / 10) + bytes * NANOS / bytesASecond;
          }
          return;
        }
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
    throw new CancellationException("stopped");
  }
}
