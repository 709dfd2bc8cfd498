package zander.core.change.effect;

import java.io.IOException;

/** A server cannot take a change back by itself; the change was not made, or is taken back. */
public final class GuardRefused extends IOException {
  public enum Reason {
    /** Others may write to a folder on the file's path, and lead what is put back elsewhere. */
    OTHERS_MAY_TURN,
    /** It does not have the programs for it. */
    NO_TOOLS,
    /** There is no room for a copy, or the file cannot be read. */
    NO_COPY,
    /** Nothing can be started that goes on by itself. */
    NOT_STARTED,
    /** The time was over before the change was made. */
    TOO_LATE,
    FAILED
  }

  private final Reason reason;
  private final String said;

  /**
   * @param said what the server's tools said; may be empty
   */
  public GuardRefused(Reason reason, String said) {
    super(reason + ": " + said);
    this.reason = reason;
    this.said = said;
  }

  public Reason reason() {
    return reason;
  }

  public String said() {
    return said;
  }
}
