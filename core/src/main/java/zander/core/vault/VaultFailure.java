package zander.core.vault;

import java.io.IOException;

/** A vault that cannot be opened. The file was left as it is. */
public final class VaultFailure extends IOException {
  /** Why. */
  public enum Reason {
    /** The master passphrase is wrong, or the file was changed by somebody. */
    WRONG_PASSPHRASE,
    DAMAGED,
    /** Written by a newer version of the program. */
    NEWER
  }

  private final Reason reason;

  VaultFailure(Reason reason, String detail, Throwable cause) {
    super(detail, cause);
    this.reason = reason;
  }

  public Reason reason() {
    return reason;
  }
}
