package zander.core.connect.report;

import java.time.Duration;
import zander.core.connect.address.ServerAddress;
import zander.core.phrase.Phrase;

/**
 * One thing that happened while signing in. Holds no secret.
 *
 * @param hop the server it is about: a jump host or the goal
 * @param fact what it is about: an address, a greeting, a fingerprint, a key's name, quoted and
 *     maybe empty; or what Zander found
 * @param at since the sign-in began, without the time that a person thought about a question
 */
public record SignInNote(ServerAddress hop, SignInStep step, Kind kind, Phrase fact, Duration at) {

  /** What became of it. */
  public enum Kind {
    /** The step began. */
    BEGUN,
    /** Something that was found out on the way. */
    FOUND,
    /** What the server says to whoever signs in. */
    BANNER,
    /** Something was offered to the server. */
    OFFERED,
    /** The server took it, but wants more. */
    TAKEN,
    /** The server did not take it, or it could not be used. */
    REFUSED,
    /** The step is done. */
    DONE,
    /** The step failed, and the sign-in with it. */
    FAILED
  }
}
