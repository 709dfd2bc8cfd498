package zander.core.transfer.progress;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.Phrase;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.progress.Progress.Problem;

/** Counts a transfer's progress from several threads. */
public final class ProgressCounter {
  private static final int MOST_PROBLEMS = 10_000;

  private final List<Problem> problems = new ArrayList<>();
  private @Nullable List<Problem> told = List.of();
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

  public synchronized void phase(Phase next) {
    phase = next;
    counting &= next == Phase.COUNTING;
  }

  public synchronized void allCounted() {
    counting = false;
  }

  public synchronized void counted(long size) {
    filesInAll++;
    bytesInAll += size;
  }

  public synchronized void begin(String path) {
    current = path;
    if (phase == Phase.COUNTING) {
      phase = Phase.CARRYING;
    }
  }

  public synchronized void carried(long count) {
    bytes += count;
  }

  public synchronized void fileDone() {
    files++;
  }

  /** A file that grew or shrank since it was counted must not leave the sums apart. */
  public synchronized void correct(long expected, long real) {
    bytesInAll += real - expected;
  }

  public synchronized void skip(long size) {
    files++;
    skipped++;
    bytesInAll -= size;
  }

  public synchronized void same(long size) {
    skip(size);
    same++;
  }

  public synchronized void leftOut() {
    leftOut++;
  }

  public synchronized void waiting(int change) {
    waiting += change;
  }

  public synchronized void problem(Problem problem) {
    failed += problem.arrived() ? 0 : 1;
    if (problems.size() < MOST_PROBLEMS) {
      problems.add(problem);
      told = null;
    }
  }

  /** Whether a carrier begins or ends waiting for the line. */
  public synchronized void away(boolean begins) {
    away += begins ? 1 : -1;
  }

  public synchronized Progress now(boolean paused, @Nullable Phrase carrier) {
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
