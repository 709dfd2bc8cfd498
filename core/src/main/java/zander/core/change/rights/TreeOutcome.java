package zander.core.change.rights;

import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;

/**
 * What became of a change of the rights of trees, read back.
 *
 * @param wanted how many entries were meant
 * @param set how many have what was wanted, because of it
 * @param already how many had it before
 * @param left how many do not have it: their number, those not come to included
 * @param some of these, and why; the first thousand
 * @param stopped whether it was stopped before its end
 * @param entry its number in the journal
 */
public record TreeOutcome(
    long wanted, long set, long already, long left, List<Left> some, boolean stopped, long entry) {

  /** Why an entry is not as wanted. */
  public enum Why {
    /** It became another thing since it was looked at: a link, a new file of the name. */
    OTHER_THING,
    /** Its rights were changed since by somebody else. */
    CHANGED_SINCE,
    /** It is gone, or what it is in cannot be looked into. */
    GONE,
    /** It may be as wanted: a folder above it lets this account no further now. */
    OUT_OF_REACH,
    /** The server refused it. */
    REFUSED,
    /** It was stopped before. */
    NOT_COME_TO
  }

  /**
   * @param failure what the server said; {@code null} unless it refused
   */
  public record Left(RemotePath path, Why why, @Nullable RemoteFailure failure) {}

  public boolean isWhole() {
    return left == 0;
  }
}
