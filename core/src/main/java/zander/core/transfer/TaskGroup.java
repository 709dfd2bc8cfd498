package zander.core.transfer;

import java.util.concurrent.CancellationException;
import org.jspecify.annotations.Nullable;
import zander.core.work.Workers;

/** Counts what is still to be done, and ends all at the first thing that ends all. */
final class TaskGroup {
  private long count;
  private @Nullable RuntimeException end;

  synchronized void begin() {
    count++;
  }

  synchronized void done() {
    if (--count == 0) {
      notifyAll();
    }
  }

  /** One thing more, done by a thread of the workers; what it throws ends all. */
  void run(Workers workers, Runnable work) {
    begin();
    workers.submit(
        () -> {
          try {
            throwIfEnded();
            work.run();
          } catch (RuntimeException | Error e) {
            end(e instanceof RuntimeException known ? known : new IllegalStateException(e));
          } finally {
            done();
          }
          return true;
        });
  }

  /** Ends all; the first reason counts. */
  synchronized void end(RuntimeException why) {
    if (end == null) {
      end = why;
    }
    notifyAll();
  }

  synchronized void throwIfEnded() {
    if (end != null) {
      throw end;
    }
  }

  /** Waits until nothing is left to do, or it was ended. */
  synchronized void await() {
    try {
      while (count > 0 && end == null) {
        wait();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      end(new CancellationException("interrupted"));
    }
  }
}
