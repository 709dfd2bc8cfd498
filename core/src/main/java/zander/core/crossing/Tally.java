package zander.core.crossing;

import java.util.ArrayList;
import java.util.List;
import zander.core.crossing.Progress.Phase;
import zander.core.crossing.Progress.Problem;

/** Counts a crossing's progress from several threads. */
final class Tally {
  private static final int MOST_PROBLEMS = 10_000;

  private final List<Problem> problems = new ArrayList<>();
  private Phase phase = Phase.COUNTING;
  private long files;
  private long filesInAll;
  private long bytes;
  private long bytesInAll;
  private long skipped;
  private int away;
  private String current = "";

  synchronized void phase(Phase next) {
    phase = next;
  }

  synchronized void counted(long size) {
    filesInAll++;
    bytesInAll += size;
  }

  synchronized void begin(String path) {
    current = path;
  }

  synchronized void carried(long count) {
    bytes += count;
  }

  synchronized void fileDone() {
    files++;
  }

  /** A file that grew or shrank since it was counted must not leave the sums apart. */
  synchronized void correct(long expected, long real) {
    bytesInAll += real - expected;
  }

  synchronized void skip(long size) {
    files++;
    skipped++;
    bytesInAll -= size;
  }

  synchronized void problem(String path, String why, boolean arrived) {
    if (problems.size() < MOST_PROBLEMS) {
      problems.add(new Problem(path, why, arrived));
    }
  }

  /** Whether a carrier begins or ends waiting for the line. */
  synchronized void away(boolean begins) {
    away += begins ? 1 : -1;
  }

  synchronized Progress now() {
    Phase shown = away > 0 && !phase.isOver() ? Phase.AWAY : phase;
    return new Progress(
        shown, files, filesInAll, bytes, bytesInAll, skipped, current, List.copyOf(problems));
  }
}
