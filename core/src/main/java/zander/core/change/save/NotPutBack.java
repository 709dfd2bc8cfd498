package zander.core.change.save;

import java.io.IOException;

/**
 * A save was made, what should have checked it afterwards did not take it or did not run, and the
 * version before could not be put back: the server has the new one.
 */
public final class NotPutBack extends IOException {
  private final transient AtomicSave.Saved saved;

  /**
   * @param refused why it was to be put back
   * @param failure why it was not
   */
  NotPutBack(AtomicSave.Saved saved, Exception refused, SaveFailure failure) {
    super("not put back after: " + refused.getMessage(), failure);
    this.saved = saved;
    addSuppressed(refused);
  }

  /** The save that stands. */
  public AtomicSave.Saved saved() {
    return saved;
  }

  /** Why it was to be put back. */
  public Throwable refused() {
    return getSuppressed()[0];
  }
}
