package zander.core.transfer;

import java.io.IOException;
import java.util.concurrent.CancellationException;
import java.util.concurrent.atomic.AtomicInteger;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteFailure;
import zander.core.files.WireName;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.Phrase;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.progress.Progress.Problem;
import zander.core.transfer.progress.ProgressCounter;
import zander.core.transfer.rules.DiskFullPrompt;
import zander.core.transfer.rules.ReconnectPrompt;
import zander.core.work.Cancellation;

/**
 * Runs the single steps of a transfer: one that fails is noted and the rest goes on; a line that
 * breaks is waited for, and the step done again.
 */
final class Retrier {
  /** The end of a whole transfer. */
  static final class Broken extends RuntimeException {
    final String path;
    final transient Phrase why;

    Broken(String path, Phrase why) {
      super(why.toString());
      this.why = why;
      this.path = path;
    }
  }

  interface Step<T> {
    @Nullable T run() throws IOException;
  }

  private final Source source;
  private final Target target;
  private final Cancellation cancellation;
  private final ProgressCounter counter;
  private final Object fullAsked = new Object();
  private final AtomicInteger answers = new AtomicInteger();
  private DiskFullPrompt fullDisk = DiskFullPrompt.GOES_ON;
  private ReconnectPrompt lostLine = ReconnectPrompt.ENDS_IT;
  private boolean skipsFull;

  Retrier(Source source, Target target, Cancellation cancellation, ProgressCounter counter) {
    this.source = source;
    this.target = target;
    this.cancellation = cancellation;
    this.counter = counter;
  }

  /** The step's result; {@code null} when it failed, which is noted. */
  <T> @Nullable T attempt(String path, Step<T> step) {
    while (true) {
      cancellation.throwIfStopped();
      int asked = roomAnswers();
      try {
        return step.run();
      } catch (IOException e) {
        if (isLost(e)) {
          awaitLine(path, e);
        } else if (!isFull(e, asked) || !awaitRoom(path, e, asked)) {
          failed(path, e);
          return null;
        }
      }
    }
  }

  void throwIfStopped() {
    cancellation.throwIfStopped();
  }

  boolean isLost(IOException failure) {
    return source.isLost(failure) || target.isLost(failure);
  }

  /** What to do when the target takes no more; before the transfer begins. */
  void whenFull(DiskFullPrompt prompt) {
    fullDisk = prompt;
  }

  /** What to do when the line to a side breaks; before the transfer begins. */
  void whenLineBreaks(ReconnectPrompt prompt) {
    lostLine = prompt;
  }

  /**
   * Whether it failed because there is no room on the side that receives. A server that gives no
   * reason is asked for the room there is; when somebody has made some meanwhile, that was it.
   *
   * @param answersBefore {@link #roomAnswers} when the step that failed began
   */
  boolean isFull(IOException failure, int answersBefore) {
    return target.isFull(failure) || (hasNoReason(failure) && roomWasMadeSince(answersBefore));
  }

  private boolean hasNoReason(IOException failure) {
    return failure instanceof RemoteFailure remote
        && remote.reason() == RemoteFailure.Reason.FAILED
        && target.isOwn(failure);
  }

  /** Waits for an answer that is being given. */
  private boolean roomWasMadeSince(int answersBefore) {
    synchronized (fullAsked) {
      return answers.get() != answersBefore && !skipsFull;
    }
  }

  /**
   * Waits until somebody has made room. What failed before the last answer takes that one.
   *
   * @param answersBefore {@link #roomAnswers} when the step that failed began
   * @return false when the failure stands
   * @throws CancellationException when the transfer is to stop
   */
  boolean awaitRoom(String path, IOException full, int answersBefore) {
    synchronized (fullAsked) {
      cancellation.throwIfStopped();
      if (answers.get() != answersBefore) {
        return !skipsFull;
      }
      if (skipsFull) {
        return false;
      }
      DiskFullPrompt.Answer answer =
          fullDisk.ask(
              new DiskFullPrompt.Question(WireName.toText(path), why(full), freeOrUnknown()));
      skipsFull = answer == DiskFullPrompt.Answer.SKIP;
      answers.incrementAndGet();
      if (answer == DiskFullPrompt.Answer.STOP) {
        cancellation.stop();
      }
      cancellation.throwIfStopped();
      return answer == DiskFullPrompt.Answer.TRY_AGAIN;
    }
  }

  /** How often somebody has answered that there is no room. */
  int roomAnswers() {
    return answers.get();
  }

  private long freeOrUnknown() {
    try {
      return target.free();
    } catch (IOException e) {
      return -1;
    }
  }

  void failed(String path, IOException failure) {
    boolean denied =
        failure instanceof RemoteFailure remote
            && remote.reason() == RemoteFailure.Reason.PERMISSION_DENIED;
    problem(path, why(failure), false, denied);
  }

  void problem(String path, Phrase why, boolean arrived) {
    problem(path, why, arrived, false);
  }

  private void problem(String path, Phrase why, boolean arrived, boolean denied) {
    int slash = path.indexOf('/');
    String top = slash < 0 ? path : path.substring(0, slash);
    counter.problem(new Problem(WireName.toText(path), why, arrived, top, denied));
  }

  private Phrase why(IOException failure) {
    return failure instanceof ExplainedException known
        ? known.phrase()
        : sideOf(failure).why(failure);
  }

  private Endpoint sideOf(IOException e) {
    return source.isOwn(e) ? source : target;
  }

  /** Returns when the line is back and the step can be done again; ends the transfer otherwise. */
  void awaitLine(String path, IOException lost) {
    counter.away(true);
    try {
      if (!lostLine.awaitNext()) {
        cancellation.throwIfStopped();
        throw new Broken(WireName.toText(path), why(lost));
      }
    } finally {
      counter.away(false);
    }
  }
}
