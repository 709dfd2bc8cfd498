package zander.desk.view.part;

import java.time.Duration;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
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
    long millis = every.toMillis();
    return CLOCK.scheduleWithFixedDelay(
        () -> Platform.runLater(work), millis, millis, TimeUnit.MILLISECONDS);
  }

  /** For as long as a view is in a window. */
  public static void whileShown(Node view, Duration every, Runnable work) {
    Future<?>[] running = {null};
    view.sceneProperty()
        .addListener(
            (observed, old, now) -> {
              if (running[0] != null) {
                running[0].cancel(false);
                running[0] = null;
              }
              if (now != null) {
                running[0] = forever(every, work);
              }
            });
  }
}
