package zander.desk.work;

import java.time.Duration;
import java.util.concurrent.Callable;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.RejectedExecutionException;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;

/**
 * The one place that runs work off the interface thread and brings its outcome back to it. Each
 * piece of work has a thread of its own, because most of it waits for a server.
 */
public final class Background {
  private static final AtomicInteger NUMBER = new AtomicInteger();

  private final ExecutorService threads;
  private final ScheduledExecutorService clock =
      Executors.newSingleThreadScheduledExecutor(
          task -> {
            Thread thread = new Thread(task, "clock");
            thread.setDaemon(true);
            return thread;
          });
  private final Executor interfaceThread;

  /**
   * @param interfaceThread runs what touches the window; {@code Platform::runLater} in the program
   */
  public Background(Executor interfaceThread) {
    this(
        interfaceThread,
        Executors.newCachedThreadPool(
            task -> {
              Thread thread = new Thread(task, "work-" + NUMBER.incrementAndGet());
              thread.setDaemon(true);
              return thread;
            }));
  }

  /**
   * @param threads run the work, and end with it
   */
  public Background(Executor interfaceThread, ExecutorService threads) {
    this.interfaceThread = interfaceThread;
    this.threads = threads;
  }

  /** Runs work, then one of the two on the interface thread. */
  public <T> void run(Callable<T> work, Consumer<T> done, Consumer<Throwable> failed) {
    start(
        () -> {
          try {
            T result = work.call();
            show(() -> done.accept(result));
          } catch (Exception | StackOverflowError | OutOfMemoryError e) {
            // What the work held is let go of by now; whoever waits for it must not wait for ever.
            show(() -> failed.accept(e));
          }
        });
  }

  /** Runs work on a thread of its own with nothing to bring back; it must handle its failures. */
  public void run(Runnable work) {
    start(work);
  }

  /** What comes in after the end of the program has nobody to tell it to. */
  private void start(Runnable work) {
    try {
      threads.execute(work);
    } catch (RejectedExecutionException e) {
      if (!threads.isShutdown()) {
        throw e;
      }
    }
  }

  /** Runs something on the interface thread, from any thread; not after the end of the program. */
  public void show(Runnable change) {
    try {
      interfaceThread.execute(change);
    } catch (RejectedExecutionException e) {
      if (!threads.isShutdown()) {
        throw e;
      }
    }
  }

  /** Runs something on the interface thread later; cancelling the result prevents it. */
  public Future<?> later(Duration pause, Runnable change) {
    try {
      return clock.schedule(() -> show(change), pause.toMillis(), TimeUnit.MILLISECONDS);
    } catch (RejectedExecutionException e) {
      if (!clock.isShutdown()) {
        throw e;
      }
      return CompletableFuture.completedFuture(null);
    }
  }

  /** Runs short work again and again, on the clock's thread; it must not wait. */
  public Future<?> every(Duration pause, Runnable look) {
    return clock.scheduleWithFixedDelay(
        look, pause.toMillis(), pause.toMillis(), TimeUnit.MILLISECONDS);
  }

  public void stop() {
    clock.shutdownNow();
    threads.shutdownNow();
  }
}
