package zander.core.connect;

import java.io.IOException;
import java.util.List;

/**
 * A sign-in that failed: at which step, and why. No secret had been sent before {@code SIGN_IN}.
 */
public final class ConnectFailure extends IOException {
  /** Why, as far as it can be told apart. */
  public enum Reason {
    UNKNOWN_HOST,
    REFUSED,
    TIMED_OUT,
    UNREACHABLE,
    NOT_SSH,
    NO_COMMON_ALGORITHM,
    HOST_KEY_CHANGED,
    HOST_KEY_REVOKED,
    HOST_KEY_DECLINED,
    KEY_FILE_MISSING,
    KEY_FILE_UNREADABLE,
    WRONG_PASSPHRASE,
    KEY_REFUSED,
    PASSWORD_REFUSED,
    TOO_MANY_TRIES,
    NO_WAY_LEFT,
    GIVEN_UP,
    NO_FILE_SERVICE,
    CLOSED_BY_SERVER,
    FAILED
  }

  private final SignInStep step;
  private final Reason reason;
  private final ServerAddress address;
  private final transient HostKey shown;
  private final transient List<HostKey> known;

  ConnectFailure(
      SignInStep step, Reason reason, ServerAddress address, String detail, Throwable cause) {
    this(step, reason, address, detail, cause, null, List.of());
  }

  ConnectFailure(
      SignInStep step,
      Reason reason,
      ServerAddress address,
      String detail,
      Throwable cause,
      HostKey shown,
      List<HostKey> known) {
    super(detail, cause);
    this.step = step;
    this.reason = reason;
    this.address = address;
    this.shown = shown;
    this.known = List.copyOf(known);
  }

  public SignInStep step() {
    return step;
  }

  public Reason reason() {
    return reason;
  }

  public ServerAddress address() {
    return address;
  }

  /** The host key the server showed, when it got that far with a wrong one; else {@code null}. */
  public HostKey shown() {
    return shown;
  }

  /** The host keys that were known before. */
  public List<HostKey> known() {
    return known;
  }
}
