package zander.core.work;

import java.util.function.BooleanSupplier;

/**
 * Refuses calls that wait for a network or a disk on threads that must never wait: the interface's,
 * and those that read a connection, which would wait for an answer that only they can take.
 *
 * <p>The core does not know the interface toolkit; the application registers a test for its own
 * thread once at start. Threads that read connections carry a mark ({@link NeverWaits}). Every
 * blocking entry point of the core calls {@link #check}.
 */
public final class BlockingCalls {
  private static volatile BooleanSupplier forbidden = () -> false;
  private static final ThreadLocal<Boolean> ALLOWED = ThreadLocal.withInitial(() -> false);

  private BlockingCalls() {}

  /** Marks a thread on which nothing may wait. */
  public interface NeverWaits {}

  /** Registers the test that says whether the calling thread must not wait. */
  public static void forbidOn(BooleanSupplier test) {
    forbidden = test;
  }

  /** Work with one checked failure. */
  public interface Work<T, E extends Exception> {
    T run() throws E;
  }

  /**
   * Runs work on a thread that reads a connection, where nothing else is to be read meanwhile:
   * while somebody is asked during a sign-in.
   */
  public static <T, E extends Exception> T allowing(Work<T, E> work) throws E {
    boolean before = ALLOWED.get();
    ALLOWED.set(true);
    try {
      return work.run();
    } finally {
      ALLOWED.set(before);
    }
  }

  /**
   * Called first by everything that may wait.
   *
   * @throws IllegalStateException when the calling thread must not wait; this is a defect of the
   *     caller, never a state of the server
   */
  public static void check(String what) {
    boolean reads = Thread.currentThread() instanceof NeverWaits && !ALLOWED.get();
    if (reads || forbidden.getAsBoolean()) {
      throw new IllegalStateException(what + " waits, and was called on a thread that must not");
    }
  }
}
