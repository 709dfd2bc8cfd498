package zander.core.transfer.rules;

import zander.core.phrase.Phrase;

/** Asks what becomes of a transfer when the side that receives takes no more. */
@FunctionalInterface
public interface DiskFullPrompt {
  /** What did not fit is told as failed, and the rest is tried all the same. */
  DiskFullPrompt GOES_ON = question -> Answer.SKIP;

  /**
   * @param path what did not fit, for people
   * @param why in words: a full disk, no more files, a quota
   * @param free bytes that are free there by now; -1 when that is not told
   */
  record Question(String path, Phrase why, long free) {}

  /** What to do. */
  enum Answer {
    /** There is room by now. */
    TRY_AGAIN,
    /** What does not fit is left out, without asking again. */
    SKIP,
    STOP
  }

  /** Waits for the person. Called by one thread at a time; the others wait for its answer. */
  Answer ask(Question question);
}
