package zander.desk.work;

import java.util.stream.Collectors;
import zander.core.change.effect.GuardRefused;
import zander.core.change.save.CheckRefused;
import zander.core.change.save.NotPutBack;
import zander.core.change.save.SaveFailure;
import zander.desk.words.Words;

/** What is said of a save that was not made, or does not stand. */
final class SaveWords {
  private static final Words WORDS = Words.of(SaveWords.class);

  private static final int MOST_LINES = 6;

  private SaveWords() {}

  private static Message refusedByCheck(SaveFailure failure) {
    String same = WORDS.say("theFileOnThe");
    if (!(failure.getCause() instanceof CheckRefused check)) {
      return new Message(WORDS.say("theCheckRefusedThe"), same);
    }
    String program = programOf(check);
    if (failure.step() == SaveFailure.Step.TRY_AFTER) {
      return new Message(
          check.isMissing()
              ? WORDS.say("putBackNotChecked", program)
              : WORDS.say("putBackRefusedThe", program),
          WORDS.say("theVersionBeforeIs", linesOf(check)));
    }
    if (check.isMissing()) {
      return new Message(
          WORDS.say("theCheckWasNot", program), WORDS.say("chooseAnotherCheckOr", same));
    }
    return new Message(WORDS.say("notSavedRefusedThe", program), linesOf(check) + same);
  }

  private static String programOf(CheckRefused check) {
    String first = check.command().strip().split("\\s+")[0];
    return first.substring(first.lastIndexOf('/') + 1);
  }

  /** Each with its line end. */
  private static String linesOf(CheckRefused check) {
    return check
        .said()
        .lines()
        .filter(line -> !line.isBlank())
        .limit(MOST_LINES)
        .map(line -> line + "\n")
        .collect(Collectors.joining());
  }

  static Message of(NotPutBack stands) {
    String name = stands.saved().version().asked().name();
    Throwable why = stands.refused();
    Message failed = FailureWords.of(FailureWords.within(stands));
    return new Message(
        why instanceof CheckRefused check
            ? WORDS.say("refusedWhichCouldNot", programOf(check), name)
            : why instanceof GuardRefused
                ? WORDS.say("isSavedAndThe", name)
                : WORDS.say("isSavedAndWas", name),
        WORDS.say(
            "theServerHasThe",
            (why instanceof CheckRefused check ? linesOf(check) : "") + failed.headline()));
  }

  static Message of(GuardRefused refused) {
    if (refused.reason() == GuardRefused.Reason.TOO_LATE) {
      return new Message(WORDS.say("theTimeWasOver"), WORDS.say("itWasPutBack"));
    }
    String said =
        refused.said().isBlank() ? "" : WORDS.say("theServerSaid", refused.said().strip());
    return new Message(
        WORDS.say("thisServerCannotTake"),
        WORDS.say(
            "nothingWasSaved",
            switch (refused.reason()) {
                  case OTHERS_MAY_TURN -> WORDS.say("otherAccountsMayWrite");
                  case NO_TOOLS -> WORDS.say("itDoesNotHave");
                  case NO_COPY -> WORDS.say("noCopyOfThe");
                  case NOT_STARTED -> WORDS.say("nothingCanBeStarted");
                  default -> WORDS.say("itCouldNotBe");
                }
                + said));
  }

  static Message of(SaveFailure failure) {
    String name = failure.version().asked().name();
    String leftover =
        failure.leftover() == null ? "" : WORDS.say("aTemporaryFileMay", failure.leftover().name());
    String kept = WORDS.say("yourTextIsStill");
    return switch (failure.reason()) {
      case CHANGED_MEANWHILE ->
          new Message(WORDS.say("wasChangedOnThe", name), WORDS.say("itWasNotSaved", kept));
      case GONE -> new Message(WORDS.say("isNotOnThe", name), WORDS.say("itWasMovedOr", kept));
      case OWNER_WOULD_CHANGE ->
          new Message(
              WORDS.say("savingWouldChangeIts", name), WORDS.say("itBelongsToSomebody", kept));
      case CHECK_REFUSED -> refusedByCheck(failure);
      case METADATA_WOULD_CHANGE ->
          new Message(WORDS.say("savingWouldChangeMore", name), WORDS.say("aNewFileWould", kept));
      case LINE_LOST ->
          failure.state() == SaveFailure.ServerState.UNFINISHED
              ? unfinished(name, kept)
              : failure.state() == SaveFailure.ServerState.OLD
                  ? new Message(
                      WORDS.say("theConnectionBrokeWhile", name),
                      WORDS.say("theServerStillHas", kept, leftover))
                  : new Message(
                      WORDS.say("theConnectionBrokeAt", name),
                      WORDS.say("theServerHasTheOld", kept, leftover));
      default -> {
        if (failure.state() == SaveFailure.ServerState.UNFINISHED) {
          yield unfinished(name, kept);
        }
        Message cause = FailureWords.of(FailureWords.within(failure));
        yield new Message(
            WORDS.say("wasNotSaved", name, reasonOf(failure)),
            WORDS.say("theServerStillHasThe", cause.headline(), kept, leftover));
      }
    };
  }

  private static Message unfinished(String name, String kept) {
    return new Message(WORDS.say("savingStoppedPartWay", name), WORDS.say("theFileMayHold", kept));
  }

  private static String reasonOf(SaveFailure failure) {
    return switch (failure.step()) {
      case CHECK, CHECK_AGAIN -> WORDS.say("theFileOnTheServer");
      case JOURNAL -> WORDS.say("theJournalOnThis");
      case CREATE -> WORDS.say("noNewFileCan");
      case WRITE, SYNC -> WORDS.say("theServerCouldNot");
      case RIGHTS -> WORDS.say("ownerAndModeCould");
      case TRY -> WORDS.say("theCheckCouldNot");
      case WRITE_IN_PLACE -> WORDS.say("theFileCouldNot");
      case TRY_AFTER -> WORDS.say("theCheckCouldNotBe");
      default -> WORDS.say("itCouldNotBePut");
    };
  }
}
