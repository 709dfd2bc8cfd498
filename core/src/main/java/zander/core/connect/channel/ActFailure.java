package zander.core.connect.channel;

import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.Phrase;

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
    /** Neither is there a file service to be started, nor can scripts stand for it. */
    NO_FILE_SERVICE,
    /** The right has ended. */
    ENDED,
    /** It began and ended, or said nothing in time. */
    FAILED
  }

  private final Reason reason;
  private final transient Phrase detail;
  private final List<String> allowed;
  private final String line;

  ActFailure(Reason reason, Phrase detail) {
    this(reason, detail, List.of(), "", null);
  }

  private ActFailure(
      Reason reason, Phrase detail, List<String> allowed, String line, @Nullable Throwable cause) {
    super("could not act as another account: " + reason + " (" + detail + ")", cause);
    this.reason = reason;
    this.detail = detail;
    this.allowed = allowed;
    this.line = line;
  }

  /** Neither a file service nor the tools that could stand for it. */
  public static ActFailure noFileService(String said, Throwable cause) {
    return new ActFailure(Reason.NO_FILE_SERVICE, Phrase.quoted(said), List.of(), "", cause);
  }

  /**
   * The same, with what the rules do allow.
   *
   * @param commands as the server tells them; empty where it does not
   * @param needed the line of its rules that would allow this
   */
  public ActFailure with(List<String> commands, String needed) {
    return new ActFailure(reason, detail, List.copyOf(commands), needed, this);
  }

  /** What the server's rules allow instead, in its words; empty where that is not known. */
  public List<String> allowed() {
    return allowed;
  }

  /** The line of its rules that would allow it; may be empty. */
  public String line() {
    return line;
  }

  public Reason reason() {
    return reason;
  }

  /** What the server said, in one line, quoted and maybe empty; or what Zander found. */
  public Phrase detail() {
    return detail;
  }
}
