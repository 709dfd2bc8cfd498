package zander.core.transfer;

import java.util.ArrayList;
import java.util.List;
import zander.core.transfer.Progress.Phase;
import zander.core.transfer.Progress.Problem;

/** Counts a transfer's progress from several threads. */
final class ProgressCounter {
  private static final int MOST_PROBLEMS = 10_000;

  private final List<Problem> problems = new ArrayList<>();
  private List<Problem> told = List.of();
  private Phase phase = Phase.COUNTING;
  private boolean counting = true;
  private long files;
  private long filesInAll;
  private long bytes;
  private long bytesInAll;
  private long skipped;
  private long same;
  private long leftOut;
  private long failed;
  private int waiting;
  private int away;
  private String current = "";

  synchronized void phase(Phase next) {
    phase = next;
    counting &= next == Phase.COUNTING;
  }

  synchronized void allCounted() {
    counting = false;
  }

  synchronized void counted(long size) {
    filesInAll++;
    bytesInAll += size;
  }

  synchronized void begin(String path) {
    current = path;
    if (phase == Phase.COUNTING) {
      phase = Phase.CARRYING;
    }
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

  synchronized void same(long size) {
    skip(size);
    same++;
  }

  synchronized void leftOut() {
    leftOut++;
  }

  synchronized void waiting(int change) {
    waiting += change;
  }

  synchronized void problem(String path, String why, boolean arrived, String top) {
    failed += arrived ? 0 : 1;
    if (problems.size() < MOST_PROBLEMS) {
      problems.add(new Problem(path, why, arrived, top));
      told = null;
    }
  }

  /** Whether a carrier begins or ends waiting for the line. */
  synchronized void away(boolean begins) {
    away += begins ? 1 : -1;
  }

  synchronized Progress now(boolean paused, String carrier) {
    Phase shown = phase.isOver() ? phase : away > 0 ? Phase.AWAY : paused ? Phase.PAUSED : phase;
    if (told == null) {
      told = List.copyOf(problems);
    }
    return new Progress(
        shown,
        files,
        filesInAll,
        bytes,
        bytesInAll,
        skipped,
        same,
        leftOut,
        waiting,
        counting,
        current,
        carrier,
        failed,
        told);
  }
}
