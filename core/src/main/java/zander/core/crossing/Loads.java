package zander.core.crossing;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;

/**
 * Puts small files together into loads that are carried as one. They begin small and grow while
 * each takes less than a moment, so that a slow line shows how far it is and a quick one is kept
 * full. For several threads.
 */
final class Loads {
  private static final int MOST_FILES = 768;
  private static final long MOST_BYTES = 3L << 20;
  private static final int FEWEST_FILES = 64;
  private static final long FEWEST_BYTES = 128 * 1024;
  private static final double QUICK_SECONDS = 0.6;
  private static final double SLOW_SECONDS = 2;

  private final Consumer<List<Work>> carry;
  private List<Work> next = new ArrayList<>();
  private long bytes;
  private int mostFiles = FEWEST_FILES * 2;
  private long mostBytes = FEWEST_BYTES * 2;

  /** A file, and the folder that waits for it. */
  record Work(Item item, OpenFolder folder) {}

  Loads(Consumer<List<Work>> carry) {
    this.carry = carry;
  }

  void add(Work work) {
    List<Work> full = null;
    synchronized (this) {
      next.add(work);
      bytes += work.item().node().size();
      if (next.size() >= mostFiles || bytes >= mostBytes) {
        full = take();
      }
    }
    if (full != null) {
      carry.accept(full);
    }
  }

  /** Sends off what is there, full or not. */
  void flush() {
    List<Work> rest;
    synchronized (this) {
      rest = take();
    }
    if (!rest.isEmpty()) {
      carry.accept(rest);
    }
  }

  /** Learns from how long a load took. */
  synchronized void took(double seconds) {
    if (seconds < QUICK_SECONDS) {
      mostFiles = Math.min(MOST_FILES, mostFiles * 2);
      mostBytes = Math.min(MOST_BYTES, mostBytes * 2);
    } else if (seconds > SLOW_SECONDS) {
      mostFiles = Math.max(FEWEST_FILES, mostFiles / 2);
      mostBytes = Math.max(FEWEST_BYTES, mostBytes / 2);
    }
  }

  private List<Work> take() {
    List<Work> taken = next;
    next = new ArrayList<>();
    bytes = 0;
    return taken;
  }
}
