package zander.desk.transfer;

import zander.core.transfer.progress.Progress;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;

/** How a transfer stands, in the list. */
public enum TransferState {
  ASKS(Words.of(TransferState.class).say("asks")),
  WAITS(Words.of(TransferState.class).say("waits")),
  UNDER_WAY(Words.of(TransferState.class).say("underWay")),
  PAUSED(Words.of(TransferState.class).say("paused")),
  OFFLINE(Words.of(TransferState.class).say("offline")),
  DONE(Words.of(TransferState.class).say("done")),
  DONE_IN_PART(Words.of(TransferState.class).say("failed")),
  STOPPED(Words.of(TransferState.class).say("stopped")),
  INTERRUPTED(Words.of(TransferState.class).say("interrupted")),
  /** Of an earlier start of Zander, which ended before it did. */
  UNFINISHED(Words.of(TransferState.class).say("unfinished"));

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
