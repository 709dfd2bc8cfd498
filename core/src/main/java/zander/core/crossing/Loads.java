package zander.core.crossing;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;

/** Puts small files together into loads that are carried as one. For several threads. */
final class Loads {
  private static final int MOST_FILES = 768;
  private static final long MOST_BYTES = 3L << 20;

  private final Consumer<List<Work>> carry;
  private List<Work> next = new ArrayList<>();
  private long bytes;

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
      if (next.size() >= MOST_FILES || bytes >= MOST_BYTES) {
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

  private List<Work> take() {
    List<Work> taken = next;
    next = new ArrayList<>();
    bytes = 0;
    return taken;
  }
}
