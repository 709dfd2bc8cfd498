package zander.core.work;

import java.time.Duration;
import java.util.concurrent.Callable;
import java.util.concurrent.Executor;
import java.util.concurrent.Future;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;

/**
 * Some threads for one piece of work. Closing drops what has not begun and lets the rest end by
 * itself: a thread that waits for a server must not be interrupted, because the SSH library then
 * closes the channel that everybody uses.
 */
public final class Workers implements AutoCloseable {
  private final ThreadPoolExecutor threads;

  public Workers(String name, int count) {
    threads =
        new ThreadPoolExecutor(
            count,
            count,
            0,
            TimeUnit.SECONDS,
            new LinkedBlockingQueue<>(),
            task -> {
              Thread thread = new Thread(task, name);
              thread.setDaemon(true);
              return thread;
            });
  }

  public <T> Future<T> submit(Callable<T> work) {
    return threads.submit(work);
  }

  public Executor executor() {
    return threads;
  }

  @Override
  public void close() {
    threads.getQueue().clear();
    threads.shutdown();
  }

  /**
   * Waits until those that were closed have ended.
   *
   * @return false when that took longer
   */
  public boolean awaitFor(Duration patience) {
    try {
      return threads.awaitTermination(patience.toMillis(), TimeUnit.MILLISECONDS);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      return false;
    }
  }

  /** The same, and waits until the rest has ended. */
  public void closeAndAwait() {
    close();
    boolean interrupted = false;
    while (true) {
      try {
        if (threads.awaitTermination(1, TimeUnit.MINUTES)) {
          break;
        }
      } catch (InterruptedException e) {
        interrupted = true;
      }
    }
    if (interrupted) {
      Thread.currentThread().interrupt();
    }
  }
}
