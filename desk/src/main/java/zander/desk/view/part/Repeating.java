package zander.desk.view.part;

import java.time.Duration;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.BooleanSupplier;
import javafx.application.Platform;
import javafx.scene.Node;

/**
 * Does something again and again on the interface thread. An animation would do it too, but one
 * that runs draws the window sixty times a second.
 */
public final class Repeating {
  private static final ScheduledExecutorService CLOCK =
      Executors.newSingleThreadScheduledExecutor(
          task -> {
            Thread thread = new Thread(task, "view-clock");
            thread.setDaemon(true);
            return thread;
          });

  private Repeating() {}

  static Future<?> forever(Duration every, Runnable work) {
    return forever(every, () -> true, work);
  }

  private static Future<?> forever(Duration every, BooleanSupplier due, Runnable work) {
    long millis = every.toMillis();
    return CLOCK.scheduleWithFixedDelay(
        () -> {
          if (due.getAsBoolean()) {
            Platform.runLater(work);
          }
        },
        millis,
        millis,
        TimeUnit.MILLISECONDS);
  }

  private static BooleanSupplier onceMore(BooleanSupplier due) {
    boolean[] before = {true};
    return () -> {
      boolean now = due.getAsBoolean();
      boolean either = now || before[0];
      before[0] = now;
      return either;
    };
  }

  /** For as long as a view is in a window. */
  public static void whileShown(Node view, Duration every, Runnable work) {
    whileShown(view, every, () -> true, work);
  }

  /**
   * The same while there is a reason to, and once more after that.
   *
   * @param due asked on the clock's thread, so that the window's own is not woken for nothing
   */
  public static void whileShown(Node view, Duration every, BooleanSupplier due, Runnable work) {
    Future<?>[] running = {null};
    view.sceneProperty()
        .addListener(
            (observed, old, now) -> {
              if (running[0] != null) {
                running[0].cancel(false);
                running[0] = null;
              }
              if (now != null) {
                running[0] = forever(every, onceMore(due), work);
              }
            });
  }
}
