package zander.core.connect.report;

import java.nio.file.Path;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.keys.KeyFailure;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.Phrase;
import zander.core.phrase.SignInPhrase;
import zander.core.trust.WireKey;

/**
 * A sign-in that failed: at which step, and why. No secret had been sent before {@code SIGN_IN}.
 */
public final class ConnectFailure extends ExplainedException {
  /** Why, as far as it can be told apart. */
  public enum Reason {
    UNKNOWN_HOST,
    REFUSED,
    TIMED_OUT,
    UNREACHABLE,
    /** The jump host could or would not reach it. */
    JUMP_REFUSED,
    NOT_SSH,
    NO_COMMON_ALGORITHM,
    HOST_KEY_CHANGED,
    HOST_KEY_REVOKED,
    HOST_KEY_DECLINED,
    /**
     * It could not prove that it is the one: a certificate that does not fit, a wrong signature.
     */
    HOST_NOT_PROVED,
    /** Something was put into the line, or taken out of it, before it was sealed. */
    LINE_TAMPERED,
    KEY_FILE_MISSING,
    KEY_FILE_UNREADABLE,
    /** It is the public half. */
    KEY_PUBLIC_HALF,
    /** Others on this computer can read the key file. */
    KEY_FILE_OPEN,
    WRONG_PASSPHRASE,
    KEY_REFUSED,
    PASSWORD_REFUSED,
    PASSWORD_EXPIRED,
    /** What was offered was taken, but the server wants more than could be offered. */
    MORE_WANTED,
    TOO_MANY_TRIES,
    NO_WAY_LEFT,
    GIVEN_UP,
    NO_FILE_SERVICE,
    /** Text came where the file service should have begun to speak. */
    START_FILES_PRINT,
    CLOSED_BY_SERVER,
    FAILED;

    /** Whether somebody may be in between: trying again is no advice then. */
    public boolean isAlarm() {
      return switch (this) {
        case HOST_KEY_CHANGED, HOST_KEY_REVOKED, HOST_NOT_PROVED, LINE_TAMPERED -> true;
        default -> false;
      };
    }
  }

  /**
   * The host key a server showed, and those that were known before.
   *
   * @param shown {@code null} when it is not about one
   */
  public record HostKeys(@Nullable WireKey shown, List<WireKey> known) {
    static final HostKeys NONE = new HostKeys(null, List.of());
  }

  private final SignInStep step;
  private final Reason reason;
  private final ServerAddress address;
  private final transient @Nullable WireKey shown;
  private final transient List<WireKey> known;

  public ConnectFailure(
      SignInStep step,
      Reason reason,
      ServerAddress address,
      Phrase detail,
      @Nullable Throwable cause) {
    this(step, reason, address, detail, cause, HostKeys.NONE);
  }

  public ConnectFailure(
      SignInStep step,
      Reason reason,
      ServerAddress address,
      Phrase detail,
      @Nullable Throwable cause,
      HostKeys keys) {
    super(detail, cause);
    this.step = step;
    this.reason = reason;
    this.address = address;
    this.shown = keys.shown();
    this.known = List.copyOf(keys.known());
  }

  /** A key file that could not be used: the server was reached, nothing was offered. */
  public static ConnectFailure of(KeyFailure trouble, ServerAddress address) {
    Reason reason =
        switch (trouble.reason()) {
          case MISSING -> Reason.KEY_FILE_MISSING;
          case PUBLIC_HALF -> Reason.KEY_PUBLIC_HALF;
          case OPEN_TO_OTHERS -> Reason.KEY_FILE_OPEN;
          case WRONG_PASSPHRASE -> Reason.WRONG_PASSPHRASE;
          default -> Reason.KEY_FILE_UNREADABLE;
        };
    return new ConnectFailure(
        SignInStep.SIGN_IN,
        reason,
        address,
        SignInPhrase.ABOUT.of(trouble.file(), trouble.phrase()),
        trouble);
  }

  /** The key file it is about; {@code null} when it is not about one. */
  public @Nullable Path keyFile() {
    return getCause() instanceof KeyFailure trouble ? trouble.file() : null;
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
  public @Nullable WireKey shown() {
    return shown;
  }

  /** The host keys that were known before. */
  public List<WireKey> known() {
    return known;
  }
}
