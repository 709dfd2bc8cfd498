package zander.core.crossing;

import java.io.IOException;
import zander.core.files.RemoteFailure;
import zander.core.files.WireName;
import zander.core.work.Cancellation;

/**
 * Runs the single steps of a crossing: one that fails is noted and the rest goes on; a line that
 * breaks is waited for, and the step done again.
 */
final class Steps {
  /** The end of a whole crossing. */
  static final class Broken extends RuntimeException {
    final String path;

    Broken(String path, String why) {
      super(why);
      this.path = path;
    }
  }

  interface Step<T> {
    T run() throws IOException;
  }

  private final Side source;
  private final Side target;
  private final Cancellation cancellation;
  private final LostLine lostLine;
  private final Tally tally;

  Steps(Side source, Side target, Cancellation cancellation, LostLine lostLine, Tally tally) {
    this.source = source;
    this.target = target;
    this.cancellation = cancellation;
    this.lostLine = lostLine;
    this.tally = tally;
  }

  /** The step's result; {@code null} when it failed, which is noted. */
  <T> T attempt(String path, Step<T> step) {
    while (true) {
      cancellation.throwIfStopped();
      try {
        return step.run();
      } catch (IOException e) {
        if (!isLost(e)) {
          failed(path, e);
          return null;
        }
        awaitLine(path, e);
      }
    }
  }

  void throwIfStopped() {
    cancellation.throwIfStopped();
  }

  boolean isLost(IOException failure) {
    return source.isLost(failure) || target.isLost(failure);
  }

  void failed(String path, IOException failure) {
    problem(path, why(failure), false);
  }

  void problem(String path, String why, boolean arrived) {
    int slash = path.indexOf('/');
    tally.problem(WireName.toText(path), why, arrived, slash < 0 ? path : path.substring(0, slash));
  }

  private String why(IOException failure) {
    return failure instanceof Side.NameNotPossible || failure instanceof Side.NotTheSame
        ? failure.getMessage()
        : sideOf(failure).why(failure);
  }

  private Side sideOf(IOException e) {
    boolean remote = e instanceof RemoteFailure;
    return remote == (source instanceof RemoteSide) ? source : target;
  }

  /** Returns when the line is back and the step can be done again; ends the crossing otherwise. */
  void awaitLine(String path, IOException lost) {
    tally.away(true);
    try {
      if (!lostLine.awaitNext()) {
        cancellation.throwIfStopped();
        throw new Broken(WireName.toText(path), why(lost));
      }
    } finally {
      tally.away(false);
    }
  }
}
