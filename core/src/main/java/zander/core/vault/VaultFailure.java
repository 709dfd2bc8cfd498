package zander.core.vault;

import org.jspecify.annotations.Nullable;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.Phrase;

/** A vault that cannot be opened. The file was left as it is. */
public final class VaultFailure extends ExplainedException {
  /** Why. */
  public enum Reason {
    /** The master passphrase is wrong, or the file was changed by somebody. */
    WRONG_PASSPHRASE,
    DAMAGED,
    /** Written by a newer version of the program. */
    NEWER
  }

  private final Reason reason;

  VaultFailure(Reason reason, Phrase detail, @Nullable Throwable cause) {
    super(detail, cause);
    this.reason = reason;
  }

  public Reason reason() {
    return reason;
  }
}
