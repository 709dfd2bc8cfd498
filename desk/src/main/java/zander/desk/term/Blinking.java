package zander.desk.term;

import java.time.Duration;
import java.util.concurrent.Future;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;

/**
 * Whether what blinks in a terminal is seen just now. It blinks for a while after the last change
 * and then stays, so that a window which nobody looks at is not drawn for it. On the interface
 * thread.
 */
final class Blinking {
  private static final Duration HALF = Duration.ofMillis(530);
  private static final int TURNS = 40;

  private final BiFunction<Duration, Runnable, Future<?>> later;
  private final Runnable turned;
  private @Nullable Future<?> next;
  private boolean dark;
  private int left;

  /**
   * @param later runs something on the interface thread after a pause
   * @param turned told when what blinks has come or gone
   */
  Blinking(BiFunction<Duration, Runnable, Future<?>> later, Runnable turned) {
    this.later = later;
    this.turned = turned;
  }

  /** Whether what blinks is not seen now. */
  boolean isDark() {
    return dark;
  }

  /** Something changed: what blinks is seen, and does so from now on. */
  void begin() {
    dark = false;
    left = TURNS;
    stop();
  }

  /** Goes on if there is anything in sight that blinks, or stops. */
  void goOn(boolean inSight) {
    if (!inSight) {
      dark = false;
      stop();
    } else if (next == null && (left > 0 || dark)) {
      next = later.apply(HALF, this::turn);
    }
  }

  private void turn() {
    next = null;
    left--;
    dark = !dark;
    turned.run();
  }

  void stop() {
    if (next != null) {
      next.cancel(false);
      next = null;
    }
  }
}
