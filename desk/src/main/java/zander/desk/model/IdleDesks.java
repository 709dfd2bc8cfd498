package zander.desk.model;

import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import javafx.beans.value.ObservableValue;
import zander.desk.work.Background;
import zander.desk.work.Settings;

/**
 * Ends desks on which nothing was done for a time. What runs there, or is not saved, is not cut
 * off: it is looked at again later. On the interface thread.
 */
final class IdleDesks {
  private static final Duration AGAIN = Duration.ofMinutes(1);

  /** A desk that is to end by itself. */
  interface Ending {
    boolean isOpen();

    boolean isBusy();

    /** After so long a time. */
    void end(Duration idle);
  }

  private final Background background;
  private final ObservableValue<Long> seconds;

  /** When something was done on each, in nanoseconds. */
  private final Map<Ending, Long> used = new HashMap<>();

  IdleDesks(Background background, Settings settings) {
    this.background = background;
    this.seconds = settings.value(Settings.ACTING_SECONDS);
    seconds.addListener((observed, old, now) -> List.copyOf(used.keySet()).forEach(this::look));
  }

  void begins(Ending desk) {
    used.put(desk, System.nanoTime());
    lookLater(desk, limit());
  }

  /** A key or a button was pressed on it. */
  void used(Ending desk) {
    used.computeIfPresent(desk, (same, before) -> System.nanoTime());
  }

  private Duration limit() {
    return Duration.ofSeconds(seconds.getValue());
  }

  private void lookLater(Ending desk, Duration pause) {
    background.later(pause.isZero() ? AGAIN : pause, () -> look(desk));
  }

  private void look(Ending desk) {
    if (!desk.isOpen() || !used.containsKey(desk)) {
      used.remove(desk);
      return;
    }
    Duration limit = limit();
    Duration left = limit.minusNanos(System.nanoTime() - used.get(desk));
    if (limit.isZero() || desk.isBusy()) {
      lookLater(desk, AGAIN);
    } else if (left.isZero() || left.isNegative()) {
      used.remove(desk);
      desk.end(limit);
    } else {
      lookLater(desk, left);
    }
  }
}
