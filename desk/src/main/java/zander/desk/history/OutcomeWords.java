package zander.desk.history;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zander.core.change.save.SaveFailure;
import zander.core.files.RemoteFailure;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;
import zander.desk.words.Phrases;
import zander.desk.words.Words;

/**
 * Why an entry of the journal failed, in words. The journal keeps the technical form, so that files
 * of every version say the same.
 */
final class OutcomeWords {
  private static final Words WORDS = Words.of(OutcomeWords.class);

  /** {@link SaveFailure}'s message, or its parts as a save writes them down. */
  private static final Pattern SAVE =
      Pattern.compile("failed: (?:save of .*: )?([A-Z_]+) at [A-Z_]+, server has ([A-Z_]+)");

  /** {@link RemoteFailure}'s message: the step, the path, the reason, what the server said. */
  private static final Pattern REMOTE =
      Pattern.compile("failed: ([a-z ]+?)(?: /.*)?: ([A-Z_]+) \\((.*)\\)", Pattern.DOTALL);

  private static final String FAILED = "failed: ";

  private OutcomeWords() {}

  static String of(String outcome) {
    Matcher save = SAVE.matcher(outcome);
    Matcher remote = REMOTE.matcher(outcome);
    try {
      if (save.matches()) {
        return WORDS.say(
            "notSaved",
            words(SaveFailure.Reason.valueOf(save.group(1))),
            save.group(2).equals(SaveFailure.ServerState.OLD.name())
                ? WORDS.say("theServerHasThe")
                : "");
      }
      if (remote.matches()) {
        String why = words(RemoteFailure.Reason.valueOf(remote.group(2)), remote.group(3));
        FileStep step = FileStep.ofWritten(remote.group(1));
        String verb = step == null ? remote.group(1) : Phrases.say(step.of());
        return WORDS.say("failedTo", verb, why.isEmpty() ? "" : ": " + why);
      }
    } catch (IllegalArgumentException e) {
      // A reason of another version.
    }
    return outcome.startsWith(FAILED)
        ? WORDS.say("failed", Phrases.say(Phrase.parse(outcome.substring(FAILED.length()))))
        : outcome;
  }

  private static String words(SaveFailure.Reason reason) {
    return switch (reason) {
      case CHANGED_MEANWHILE -> WORDS.say("theFileWasChanged");
      case GONE -> WORDS.say("theFileWasMoved");
      case OWNER_WOULD_CHANGE -> WORDS.say("itsOwnerWouldChange");
      case METADATA_WOULD_CHANGE -> WORDS.say("moreThanItsText");
      case CHECK_REFUSED -> WORDS.say("theCheckRefusedThe");
      case REFUSED -> WORDS.say("theServerRefused");
      case LINE_LOST -> WORDS.say("theConnectionBroke");
    };
  }

  private static String words(RemoteFailure.Reason reason, String said) {
    return switch (reason) {
      case NO_SUCH_FILE -> WORDS.say("noSuchFile");
      case PERMISSION_DENIED -> WORDS.say("noPermission");
      case ALREADY_EXISTS -> WORDS.say("theNameIsTaken");
      case NO_SPACE -> WORDS.say("theDiskIsFull");
      case NO_INODES -> WORDS.say("theFileTableIs");
      case QUOTA -> WORDS.say("theQuotaIsUsed");
      case READ_ONLY -> WORDS.say("mountedReadOnly");
      case LINE_LOST -> WORDS.say("theConnectionBroke");
      case NOT_A_FOLDER -> WORDS.say("notAFolder");
      default -> Phrases.say(Phrase.parse(said)).strip();
    };
  }
}
