package zander.desk.transfer;

import java.util.List;
import zander.core.files.WireName;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.progress.Progress.Phase;
import zander.desk.sheet.Texts;
import zander.desk.words.Phrases;
import zander.desk.words.Words;

/** How a transfer stands, in words. */
public final class TransferWords {
  private static final Words WORDS = Words.of(TransferWords.class);

  private final TransferModel transfer;
  private final TransferRate pace;

  TransferWords(TransferModel transfer, TransferRate pace) {
    this.transfer = transfer;
    this.pace = pace;
  }

  /** What it carries, in a word: the name, or how many. */
  public String what() {
    return what(transfer.route().names());
  }

  static String what(List<String> names) {
    return names.size() == 1
        ? WireName.toText(names.get(0))
        : WORDS.say("entries", Texts.count(names.size()));
  }

  static String verb(Direction direction) {
    return switch (direction) {
      case SEND_UP -> WORDS.say("sentUp");
      case BRING_DOWN -> WORDS.say("broughtDown");
      case ACROSS -> WORDS.say("copiedAcross");
    };
  }

  public TransferState state() {
    return transfer.isAsking()
        ? TransferState.ASKS
        : transfer.isWaiting()
            ? TransferState.WAITS
            : TransferState.of(transfer.progress().phase(), transfer.progress().failed());
  }

  /** The state in one word or two. */
  public String stateWords() {
    return state().words(transfer.progress().failed());
  }

  private static String files(Progress now) {
    return WORDS.say(
        "ofAll",
        Texts.count(now.files()),
        Texts.count(now.filesInAll(), "file"),
        now.counting() ? WORDS.say("soFar") : "");
  }

  /** Files and bytes, done and in all. */
  public String sums() {
    Progress now = transfer.progress();
    return now.filesInAll() == 0
        ? ""
        : WORDS.say("of", files(now), Texts.size(now.bytes()), Texts.size(now.bytesInAll()));
  }

  /** One line for the waterline. */
  public String line() {
    Progress now = transfer.progress();
    String what = what();
    String verb = verb(transfer.direction());
    return switch (now.phase()) {
      case COUNTING ->
          now.counting()
              ? WORDS.say("countingSoFar", what, Texts.count(now.filesInAll(), "file"))
              : withSums(what);
      case CARRYING -> withSums(what);
      case PAUSED -> WORDS.say("paused", what, files(now));
      case AWAY -> WORDS.say("goesOnWhenThe", what, files(now));
      case DONE ->
          WORDS.say(
              "in",
              what,
              verb,
              Texts.count(now.files() - now.skipped(), "file"),
              Texts.size(now.bytes()),
              Texts.timeLeft((long) transfer.seconds()),
              rest(now));
      case STOPPED ->
          WORDS.say(
              "stoppedOfEachWhole",
              what,
              Texts.count(now.files() - now.skipped(), "file"),
              Texts.count(now.filesInAll()),
              verb);
      case BROKEN -> WORDS.say("theConnectionBrokeAfter", what, Texts.count(now.files(), "file"));
    };
  }

  /** Before anything is known to come, there is nothing to sum. */
  private String withSums(String what) {
    String sums = sums();
    return sums.isEmpty() ? what : what + "  ·  " + sums;
  }

  private static String rest(Progress now) {
    long skipped = now.skipped() - now.same() - now.failed();
    return (now.same() > 0 ? WORDS.say("theSame", Texts.count(now.same())) : "")
        + (skipped > 0 ? WORDS.say("skipped", Texts.count(skipped)) : "")
        + (now.leftOut() > 0 ? WORDS.say("leftOut", Texts.count(now.leftOut())) : "")
        + (now.failed() > 0 ? WORDS.say("failed", Texts.count(now.failed())) : "");
  }

  /** What else there is to say of it, for the list. */
  public String detail() {
    Progress now = transfer.progress();
    return now.carrier() == null ? "" : WORDS.say("howFilesGo", Phrases.say(now.carrier()));
  }

  /** The rate in words; empty while nothing moves. */
  public String rate() {
    Progress now = transfer.progress();
    if (now.phase() == Phase.DONE && now.bytes() > 0 && transfer.seconds() > 0.5) {
      return Texts.size((long) (now.bytes() / transfer.seconds())) + "/s";
    }
    double rate = pace.bytesPerSecond();
    return now.phase() != Phase.CARRYING || rate < 1 ? "" : Texts.size((long) rate) + "/s";
  }

  /** The time left in words; empty while it cannot be told. */
  public String left() {
    Progress now = transfer.progress();
    if (now.phase() != Phase.CARRYING || now.counting() || transfer.isAsking()) {
      return "";
    }
    long seconds = pace.secondsFor(now.bytesInAll() - now.bytes());
    return seconds < 0 ? "" : WORDS.say("left", Texts.timeLeft(seconds));
  }

  /** The part that is done, 0 to 1: of the bytes, as the words beside it say; else of the files. */
  public double part() {
    Progress now = transfer.progress();
    if (now.filesInAll() == 0) {
      return now.phase() == Phase.DONE ? 1 : 0;
    }
    double part =
        now.bytesInAll() > 0
            ? (double) now.bytes() / now.bytesInAll()
            : (double) now.files() / now.filesInAll();
    return Math.max(0, Math.min(1, part));
  }
}
