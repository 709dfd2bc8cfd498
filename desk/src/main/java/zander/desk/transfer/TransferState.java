package zander.desk.transfer;

import zander.core.transfer.progress.Progress;
import zander.desk.sheet.Texts;

/** How a transfer stands, in the list. */
public enum TransferState {
  ASKS("asks"),
  WAITS("waits"),
  UNDER_WAY("under way"),
  PAUSED("paused"),
  OFFLINE("offline"),
  DONE("done"),
  DONE_IN_PART("failed"),
  STOPPED("stopped"),
  INTERRUPTED("interrupted"),
  /** Of an earlier start of Zander, which ended before it did. */
  UNFINISHED("unfinished");

  private final String words;

  TransferState(String words) {
    this.words = words;
  }

  /**
   * @param failed how many files did not arrive
   */
  static TransferState of(Progress.Phase phase, long failed) {
    return switch (phase) {
      case COUNTING, CARRYING -> UNDER_WAY;
      case PAUSED -> PAUSED;
      case AWAY -> OFFLINE;
      case DONE -> failed > 0 ? DONE_IN_PART : DONE;
      case STOPPED -> STOPPED;
      case BROKEN -> INTERRUPTED;
    };
  }

  /** One word or two. */
  String words(long failed) {
    return this == DONE_IN_PART ? Texts.count(failed) + " " + words : words;
  }
}
