package zander.core.transfer;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.function.Consumer;
import zander.core.transfer.endpoint.TransferItem;

/**
 * Puts small files together into loads that are carried as one. Loads begin small and grow while
 * each takes less than a moment, so that a slow line shows how far it is and a quick one is kept
 * full. A load is put together only when a carrier is free for it. For several threads.
 */
final class BatchAssembler {
  private static final double QUICK_SECONDS = 0.6;
  private static final double SLOW_SECONDS = 2;

  /**
   * How much goes together.
   *
   * @param carriers how many loads may be under way
   */
  record Bounds(int fewestFiles, int mostFiles, long fewestBytes, long mostBytes, int carriers) {
    /** Through this computer's memory. */
    static final Bounds HERE = new Bounds(64, 256, 128 * 1024, 1L << 20, 24);

    /** Each costs a sign-in from server to server, and no memory here. */
    static final Bounds STRAIGHT = new Bounds(4096, 4096, 512L << 20, 512L << 20, 2);
  }

  private final Bounds bounds;
  private final Consumer<Runnable> carrier;
  private final Consumer<List<Work>> carry;
  private final Deque<Work> waiting = new ArrayDeque<>();
  private long waitingBytes;
  private int mostFiles;
  private long mostBytes;
  private int running;
  private boolean flushing;

  /** A file, and the folder that waits for it. */
  record Work(TransferItem item, PendingFolder folder) {}

  /**
   * @param carrier runs something on a thread that may wait
   * @param carry carries one load there, whatever becomes of it
   */
  BatchAssembler(Bounds bounds, Consumer<Runnable> carrier, Consumer<List<Work>> carry) {
    this.bounds = bounds;
    this.mostFiles = bounds.fewestFiles();
    this.mostBytes = bounds.fewestBytes();
    this.carrier = carrier;
    this.carry = carry;
  }

  void add(Work work) {
    synchronized (this) {
      waiting.addLast(work);
      waitingBytes += work.item().node().size();
      if (!isFull() || running >= bounds.carriers()) {
        return;
      }
      running++;
    }
    carrier.accept(this::run);
  }

  /** Lets what waits go, enough for a load or not. */
  void flush() {
    while (true) {
      synchronized (this) {
        flushing = !waiting.isEmpty();
        boolean enough = (long) running * mostFiles >= waiting.size() && running > 0;
        if (!flushing || enough || running >= bounds.carriers()) {
          return;
        }
        running++;
      }
      carrier.accept(this::run);
    }
  }

  private boolean isFull() {
    return waiting.size() >= mostFiles || waitingBytes >= mostBytes;
  }

  private void run() {
    while (true) {
      List<Work> load = take();
      if (load.isEmpty()) {
        return;
      }
      long start = System.nanoTime();
      carry.accept(load);
      took((System.nanoTime() - start) / 1e9);
    }
  }

  /** The next load; none, and one carrier less, when there is not enough for one. */
  private synchronized List<Work> take() {
    List<Work> load = new ArrayList<>();
    long bytes = 0;
    if (isFull() || flushing) {
      // More than all carriers can take of small loads: each takes more, and none comes twice.
      boolean many = waiting.size() > mostFiles * bounds.carriers();
      int most = many ? Math.min(mostFiles * 2, bounds.mostFiles()) : mostFiles;
      while (!waiting.isEmpty() && load.size() < most && bytes < mostBytes) {
        Work next = waiting.removeFirst();
        bytes += next.item().node().size();
        load.add(next);
      }
      waitingBytes -= bytes;
      flushing &= !waiting.isEmpty();
    }
    if (load.isEmpty()) {
      running--;
    }
    return load;
  }

  /** Learns from how long a load took. */
  private synchronized void took(double seconds) {
    if (seconds < QUICK_SECONDS) {
      mostFiles = Math.min(bounds.mostFiles(), mostFiles * 4);
      mostBytes = Math.min(bounds.mostBytes(), mostBytes * 4);
    } else if (seconds > SLOW_SECONDS) {
      mostFiles = Math.max(bounds.fewestFiles(), mostFiles / 2);
      mostBytes = Math.max(bounds.fewestBytes(), mostBytes / 2);
    }
  }
}
