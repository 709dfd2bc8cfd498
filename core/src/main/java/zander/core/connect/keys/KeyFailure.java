package zander.core.connect.keys;

import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.Phrase;

/** A key file that cannot be used, and why. Nothing was offered to any server. */
public final class KeyFailure extends ExplainedException {
  /** Why, as far as it can be told apart. */
  public enum Reason {
    MISSING,
    UNREADABLE,
    /** It is the public half, which goes on servers. */
    PUBLIC_HALF,
    /** It is no private key, or one in a form that is not read here. */
    NOT_A_KEY,
    /** Others on this computer can read it. */
    OPEN_TO_OTHERS,
    /** A cipher or key type that is not known here. */
    UNKNOWN_KIND,
    WRONG_PASSPHRASE,
    /** The certificate is not for this key, or not valid now. */
    BAD_CERTIFICATE
  }

  private final Reason reason;
  private final transient Path file;

  KeyFailure(Reason reason, Path file, Phrase detail, @Nullable Throwable cause) {
    super(detail, cause);
    this.reason = reason;
    this.file = file;
  }

  public Reason reason() {
    return reason;
  }

  public Path file() {
    return file;
  }
}
