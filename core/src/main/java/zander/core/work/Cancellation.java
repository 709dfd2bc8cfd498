package zander.core.work;

import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.CopyOnWriteArrayList;

/** A wish to stop, made on one thread and seen on others. Safe for use by any thread. */
public final class Cancellation {
  private final List<Runnable> listeners = new CopyOnWriteArrayList<>();
  private volatile boolean stopped;

  public void stop() {
    stopped = true;
    listeners.forEach(Runnable::run);
  }

  public boolean isStopped() {
    return stopped;
  }

  /** Runs once {@link #stop} is called, or now when it was. */
  public void onStop(Runnable listener) {
    listeners.add(listener);
    if (stopped) {
      listener.run();
    }
  }

  /**
   * @throws CancellationException when {@link #stop} was called
   */
  public void throwIfStopped() {
    if (stopped) {
      throw new CancellationException("stopped");
    }
  }
}
