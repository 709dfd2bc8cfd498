package zander.core.seal;

import java.io.IOException;
import org.jspecify.annotations.Nullable;

/** Something kept on this computer that cannot be opened now. It was left as it is. */
public final class StillSealed extends IOException {
  /** Why. */
  public enum Reason {
    /** The vault has the key, and stays closed. */
    VAULT_CLOSED,
    /** Its key ended with the run of the program that sealed it, or with another vault. */
    KEY_GONE,
    /** It was changed, or cut. */
    DAMAGED
  }

  private final Reason reason;

  public StillSealed(Reason reason, @Nullable Throwable cause) {
    super("what is kept on this computer could not be opened", cause);
    this.reason = reason;
  }

  public Reason reason() {
    return reason;
  }
}
