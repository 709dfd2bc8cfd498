package zander.desk.work;

import java.util.stream.Collectors;
import zander.core.change.effect.GuardRefused;
import zander.core.change.save.CheckRefused;
import zander.core.change.save.NotPutBack;
import zander.core.change.save.SaveFailure;

/** What is said of a save that was not made, or does not stand. */
final class SaveWords {
  private static final int MOST_LINES = 6;

  private SaveWords() {}

  private static Message refusedByCheck(SaveFailure failure) {
    String same = "The file on the server is as it was.";
    if (!(failure.getCause() instanceof CheckRefused check)) {
      return new Message("The check refused the new content", same);
    }
    String program = programOf(check);
    if (failure.step() == SaveFailure.Step.TRY_AFTER) {
      return new Message(
          check.isMissing()
              ? "Put back, not checked: there is no " + program + " on the server"
              : "Put back: " + program + " refused the new content",
          linesOf(check) + "The version before is in its place again. Your text is still here.");
    }
    if (check.isMissing()) {
      return new Message(
          "The check was not run: there is no " + program + " on the server",
          same + " Choose another check, or save without one.");
    }
    return new Message("Not saved: " + program + " refused the new content", linesOf(check) + same);
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
    Message failed = FailureWords.of(stands.getCause());
    return new Message(
        why instanceof CheckRefused check
            ? programOf(check) + " refused " + name + ", which could not be put back"
            : why instanceof GuardRefused
                ? name + " is saved, and the server will not take it back by itself"
                : name + " is saved, and was not checked",
        (why instanceof CheckRefused check ? linesOf(check) : "")
            + failed.headline()
            + ". The server has the new version; the journal keeps the one before.");
  }

  static Message of(GuardRefused refused) {
    if (refused.reason() == GuardRefused.Reason.TOO_LATE) {
      return new Message(
          "The time was over before the change was made",
          "It was put back at once: the server has the version before. Your text is still here."
              + " Allow more time.");
    }
    String said = refused.said().isBlank() ? "" : " The server said: " + refused.said().strip();
    return new Message(
        "This server cannot take the change back by itself",
        switch (refused.reason()) {
              case OTHERS_MAY_TURN ->
                  "Other accounts may write to a folder on the way to the file, and could lead what"
                      + " is put back elsewhere.";
              case NO_TOOLS -> "It does not have the programs for it.";
              case NO_COPY -> "No copy of the file could be made in your home folder.";
              case NOT_STARTED -> "Nothing can be started there that goes on without you.";
              default -> "It could not be prepared.";
            }
            + said
            + " Nothing was saved.");
  }

  static Message of(SaveFailure failure) {
    String name = failure.version().asked().name();
    String leftover =
        failure.leftover() == null
            ? ""
            : " A temporary file may be left there: " + failure.leftover().name() + ".";
    String kept = " Your text is still here, unsaved.";
    return switch (failure.reason()) {
      case CHANGED_MEANWHILE ->
          new Message(
              name + " was changed on the server since you opened it",
              "It was not saved; the server has the other version, whole." + kept);
      case GONE ->
          new Message(
              name + " is not on the server any more",
              "It was moved or removed since you opened it. Nothing was written." + kept);
      case OWNER_WOULD_CHANGE ->
          new Message(
              "Saving " + name + " would change its owner",
              "It belongs to somebody else, and your account cannot give the new one back to them."
                  + " The server still has the old one."
                  + kept);
      case CHECK_REFUSED -> refusedByCheck(failure);
      case METADATA_WOULD_CHANGE ->
          new Message(
              "Saving " + name + " would change more than its text",
              "A new file would lose its other names (hard links), its access list or its"
                  + " attributes, and your account cannot change the file itself without losing"
                  + " them. The server still has the old version."
                  + kept);
      case LINE_LOST ->
          failure.state() == SaveFailure.ServerState.UNFINISHED
              ? unfinished(name, kept)
              : failure.state() == SaveFailure.ServerState.OLD
                  ? new Message(
                      "The connection broke while " + name + " was being saved",
                      "The server still has the old one, whole." + kept + leftover)
                  : new Message(
                      "The connection broke at the last step of saving " + name,
                      "The server has the old or the new one, whole in either case. Connect again and"
                          + " save again: it is compared first."
                          + kept
                          + leftover);
      default -> {
        if (failure.state() == SaveFailure.ServerState.UNFINISHED) {
          yield unfinished(name, kept);
        }
        Message cause = FailureWords.of(failure.getCause());
        yield new Message(
            name + " was not saved: " + reasonOf(failure),
            cause.headline() + ". The server still has the old one, whole." + kept + leftover);
      }
    };
  }

  private static Message unfinished(String name, String kept) {
    return new Message(
        "Saving " + name + " stopped part way",
        "The file may hold some of the old text and some of the new. Both versions are complete: the"
            + " new one beside it on the server, the old one in the journal. Connect again, and"
            + " finish the save or put the old version back under Unfinished."
            + kept);
  }

  private static String reasonOf(SaveFailure failure) {
    return switch (failure.step()) {
      case CHECK, CHECK_AGAIN -> "the file on the server could not be looked at";
      case JOURNAL -> "the journal on this computer could not be written";
      case CREATE -> "no new file can be made in its folder";
      case WRITE, SYNC -> "the server could not take the text";
      case RIGHTS -> "owner and mode could not be given";
      case TRY -> "the check could not be run";
      case WRITE_IN_PLACE -> "the file could not be written into";
      case TRY_AFTER -> "the check could not be run, and the version before was put back";
      default -> "it could not be put in place";
    };
  }
}
