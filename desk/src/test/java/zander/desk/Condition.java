package zander.desk;

import java.util.concurrent.Callable;
import java.util.function.BooleanSupplier;

/**
 * What a test waits for in the window. A condition that fails is not true yet: between two layouts
 * a list may have no row, and a label may not be there.
 */
final class Condition implements Callable<Boolean> {
  private final BooleanSupplier condition;
  private volatile Throwable last;

  Condition(BooleanSupplier condition) {
    this.condition = condition;
  }

  @Override
  public Boolean call() {
    try {
      boolean holds = condition.getAsBoolean();
      last = null;
      return holds;
    } catch (RuntimeException | AssertionError e) {
      last = e;
      return false;
    }
  }

  /** What to throw when it never held, with what it failed of by then. */
  AssertionError inVain(String what, Exception cause) {
    AssertionError vain = new AssertionError("waited in vain until " + what, cause);
    if (last != null) {
      vain.addSuppressed(last);
    }
    return vain;
  }
}
