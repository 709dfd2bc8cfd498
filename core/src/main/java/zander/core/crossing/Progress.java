package zander.core.crossing;

import java.util.List;

/**
 * Where a crossing stands, at one moment.
 *
 * @param files files and links done, skipped and failed ones included
 * @param filesInAll as far as they are counted
 * @param current the file that was begun last, for people
 */
public record Progress(
    Phase phase,
    long files,
    long filesInAll,
    long bytes,
    long bytesInAll,
    long skipped,
    String current,
    List<Problem> problems) {

  /** What a crossing is doing. */
  public enum Phase {
    COUNTING,
    CARRYING,
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
   * @param path for people
   * @param arrived whether it is there all the same
   */
  public record Problem(String path, String why, boolean arrived) {}

  public long failed() {
    return problems.stream().filter(problem -> !problem.arrived()).count();
  }
}
