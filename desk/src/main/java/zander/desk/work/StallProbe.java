package zander.desk.work;

import java.lang.management.ManagementFactory;
import java.lang.management.ThreadMXBean;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.Executor;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;

/**
 * Measures how long the interface thread does not answer: asks it again and again for nothing, and
 * sees how long that takes. By the clock on the wall, which is what a person feels, and by the
 * processor time that the thread itself took meanwhile, which another program on the same machine
 * does not change.
 */
public final class StallProbe implements AutoCloseable {
  private static final long PAUSE = 10;
  private static final int DEEPEST = 40;

  /**
   * A time in which the interface thread did not answer.
   *
   * @param wall milliseconds by the clock
   * @param work milliseconds of processor time of the thread itself
   * @param where what it was doing half way, the innermost call first; empty for a short one
   */
  public record Stall(long wall, long work, List<StackTraceElement> where) {
    static final Stall NONE = new Stall(0, 0, List.of());
  }

  private final Executor interfaceThread;
  private final Duration told;
  private final Consumer<Stall> onStall;
  private final ThreadMXBean threads = ManagementFactory.getThreadMXBean();
  private final Thread watcher = new Thread(this::watch, "stall-probe");
  private volatile @Nullable Thread watched;
  private volatile boolean ended;
  private Stall longest = Stall.NONE;

  /**
   * @param told stalls longer than this are told
   * @param onStall called on the probe's own thread
   */
  public StallProbe(Executor interfaceThread, Duration told, Consumer<Stall> onStall) {
    this.interfaceThread = interfaceThread;
    this.told = told;
    this.onStall = onStall;
    watcher.setDaemon(true);
    watcher.start();
  }

  private void watch() {
    try {
      while (!ended) {
        ask();
        TimeUnit.MILLISECONDS.sleep(PAUSE);
      }
    } catch (InterruptedException e) {
      // Closed.
    }
  }

  private void ask() throws InterruptedException {
    long start = System.nanoTime();
    boolean known = watched != null;
    long work = workSoFar();
    CountDownLatch answered = new CountDownLatch(1);
    interfaceThread.execute(
        () -> {
          watched = Thread.currentThread();
          answered.countDown();
        });
    List<StackTraceElement> where = List.of();
    if (!answered.await(told.toMillis() / 2, TimeUnit.MILLISECONDS)) {
      where = whereItIs();
      answered.await();
    }
    long wall = TimeUnit.NANOSECONDS.toMillis(System.nanoTime() - start);
    long worked = known ? TimeUnit.NANOSECONDS.toMillis(workSoFar() - work) : 0;
    Stall stall = new Stall(wall, worked, where);
    synchronized (this) {
      longest = stall.work > longest.work || longest.wall == 0 ? stall : longest;
    }
    if (wall > told.toMillis()) {
      onStall.accept(stall);
    }
  }

  private long workSoFar() {
    Thread on = watched;
    return on == null ? 0 : Math.max(0, threads.getThreadCpuTime(on.getId()));
  }

  private List<StackTraceElement> whereItIs() {
    Thread on = watched;
    if (on == null) {
      return List.of();
    }
    StackTraceElement[] frames = on.getStackTrace();
    return new ArrayList<>(Arrays.asList(frames).subList(0, Math.min(DEEPEST, frames.length)));
  }

  /** The one with the most work of the thread since the start or the last call of this. */
  public synchronized Stall takeLongest() {
    Stall found = longest;
    longest = Stall.NONE;
    return found;
  }

  @Override
  public void close() {
    ended = true;
    watcher.interrupt();
  }
}
