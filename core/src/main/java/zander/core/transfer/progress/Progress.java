package zander.core.transfer.progress;

import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.Phrase;

/**
 * Where a transfer stands, at one moment.
 *
 * @param files files and links done, skipped and failed ones included
 * @param filesInAll as far as they are counted
 * @param bytes carried; those of skipped files are in neither sum
 * @param skipped files that was not transferred: by the rules, by an answer, or because they failed
 * @param same of those, how many were the same on both sides
 * @param leftOut files, links and folders that a pattern or the rule for links left out
 * @param waiting how many wait for an answer
 * @param counting whether more may still be found
 * @param current the file that was begun last, for people
 * @param carrier how files go, and why; {@code null} before that is decided
 * @param failed how many did not make it
 * @param problems the first of them, and of those that made it with something not kept: at most
 *     some thousand, which is why they are counted apart
 */
public record Progress(
    Phase phase,
    long files,
    long filesInAll,
    long bytes,
    long bytesInAll,
    long skipped,
    long same,
    long leftOut,
    int waiting,
    boolean counting,
    String current,
    @Nullable Phrase carrier,
    long failed,
    List<Problem> problems) {
  /** Before anything is known. */
  public static final Progress NOTHING =
      new Progress(Phase.COUNTING, 0, 0, 0, 0, 0, 0, 0, 0, true, "", null, 0, List.of());

  /** What a transfer is doing. */
  public enum Phase {
    COUNTING,
    CARRYING,
    PAUSED,
    /** The line broke; it goes on when it is back. */
    AWAY,
    DONE,
    STOPPED,
    /** The line broke or the person's account lost its way: the rest was not tried. */
    BROKEN;

    public boolean isOver() {
      return this == DONE || this == STOPPED || this == BROKEN;
    }
  }

  /**
   * A file that did not make it, or made it with something not kept.
   *
   * @param path for people, relative to the base it comes from
   * @param arrived whether it is there all the same
   * @param top the name at the top that it belongs to, in wire form; empty for none
   * @param denied whether the account lacked the permission on the server
   */
  public record Problem(String path, Phrase why, boolean arrived, String top, boolean denied) {}

  /** Stopped before anything was transferred. */
  public Progress stopped() {
    return new Progress(Phase.STOPPED, 0, 0, 0, 0, 0, 0, 0, 0, false, "", null, failed, problems);
  }
}
