package zander.desk.folder;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BooleanSupplier;
import zander.core.files.RemoteEntry;
import zander.desk.work.Background;

/** Passes on what a listing has so far: the first portion at once, the rest some times a second. */
final class FirstRows {
  private static final long PAUSE = 250_000_000;

  /** Shows what there is so far. */
  interface Shower {
    void show(List<RemoteEntry> soFar, boolean first);
  }

  private final Background background;
  private final BooleanSupplier wanted;
  private final Shower shower;
  private final List<RemoteEntry> soFar = new ArrayList<>();
  private long last;
  private boolean shown;

  /**
   * @param wanted asked on the interface thread whether the listing still matters
   */
  FirstRows(Background background, BooleanSupplier wanted, Shower shower) {
    this.background = background;
    this.wanted = wanted;
    this.shower = shower;
  }

  /** Takes a portion, on the thread that reads. */
  void add(List<RemoteEntry> part) {
    soFar.addAll(part);
    long now = System.nanoTime();
    if (now - last > PAUSE) {
      last = now;
      List<RemoteEntry> copy = List.copyOf(soFar);
      background.show(() -> show(copy));
    }
  }

  private void show(List<RemoteEntry> entries) {
    if (wanted.getAsBoolean()) {
      boolean first = !shown;
      shown = true;
      shower.show(entries, first);
    }
  }

  /** Whether any was shown; on the interface thread. */
  boolean areShown() {
    return shown;
  }
}
