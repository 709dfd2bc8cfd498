package zander.standin.shell.process;

/** A command called in a way it does not know, or that this stand-in does not have. */
public final class UsageError extends RuntimeException {
  private final int status;

  public UsageError(String message) {
    this(message, 2);
  }

  public UsageError(String message, int status) {
    super(message);
    this.status = status;
  }

  public int status() {
    return status;
  }
}
