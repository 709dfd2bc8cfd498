package zander.core.work;

import java.util.function.BooleanSupplier;

/**
 * Refuses calls that wait for a network or a disk on threads that must never wait.
 *
 * <p>The core does not know the interface toolkit; the application registers a test for its own
 * thread once at start, and every blocking entry point of the core calls {@link #check}.
 */
public final class BlockingCalls {
  private static volatile BooleanSupplier forbidden = () -> false;

  private BlockingCalls() {}

  /** Registers the test that says whether the calling thread must not wait. */
  public static void forbidOn(BooleanSupplier test) {
    forbidden = test;
  }

  /**
   * Called first by everything that may wait.
   *
   * @throws IllegalStateException when the calling thread must not wait; this is a defect of the
   *     caller, never a state of the server
   */
  public static void check(String what) {
    if (forbidden.getAsBoolean()) {
      throw new IllegalStateException(what + " waits, and was called on a thread that must not");
    }
  }
}
