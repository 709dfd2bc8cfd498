package zander.core.connect.channel;

import java.io.IOException;

/** Another account could not be acted as. Nothing was run as it. */
public final class ActFailure extends IOException {
  /** Why. */
  public enum Reason {
    /** The server's rules do not allow it, or not this. */
    NOT_ALLOWED,
    /** The password was wrong, and none was given again; or a kept one is not right any more. */
    WRONG_PASSWORD,
    /** Nobody gave a password. */
    GIVEN_UP,
    /** The server wants a terminal for it. */
    WANTS_TERMINAL,
    /** There is no such program on the server. */
    NO_PROGRAM,
    /** The right has ended. */
    ENDED,
    /** It began and ended, or said nothing in time. */
    FAILED
  }

  private final Reason reason;
  private final String said;

  ActFailure(Reason reason, String said) {
    super("could not act as another account: " + said);
    this.reason = reason;
    this.said = said;
  }

  public Reason reason() {
    return reason;
  }

  /** What the server said, in one line; may be empty. */
  public String said() {
    return said;
  }
}
