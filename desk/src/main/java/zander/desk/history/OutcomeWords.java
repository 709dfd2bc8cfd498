package zander.desk.history;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import zander.core.change.save.SaveFailure;
import zander.core.files.RemoteFailure;

/**
 * Why an entry of the journal failed, in words. The journal keeps the technical form, so that files
 * of every version say the same.
 */
final class OutcomeWords {
  /** {@link SaveFailure}'s message, or its parts as a save writes them down. */
  private static final Pattern SAVE =
      Pattern.compile("failed: (?:save of .*: )?([A-Z_]+) at [A-Z_]+, server has ([A-Z_]+)");

  /** {@link RemoteFailure}'s message: the step, the path, the reason, what the server said. */
  private static final Pattern REMOTE =
      Pattern.compile("failed: ([a-z ]+?)(?: /.*)?: ([A-Z_]+) \\((.*)\\)", Pattern.DOTALL);

  private OutcomeWords() {}

  static String of(String outcome) {
    Matcher save = SAVE.matcher(outcome);
    Matcher remote = REMOTE.matcher(outcome);
    try {
      if (save.matches()) {
        return "not saved: "
            + words(SaveFailure.Reason.valueOf(save.group(1)))
            + (save.group(2).equals(SaveFailure.ServerState.OLD.name())
                ? "; the server has the version before"
                : "");
      }
      if (remote.matches()) {
        String why = words(RemoteFailure.Reason.valueOf(remote.group(2)), remote.group(3));
        return "failed to " + remote.group(1) + (why.isEmpty() ? "" : ": " + why);
      }
    } catch (IllegalArgumentException e) {
      // A reason of another version.
    }
    return outcome;
  }

  private static String words(SaveFailure.Reason reason) {
    return switch (reason) {
      case CHANGED_MEANWHILE -> "the file was changed on the server meanwhile";
      case GONE -> "the file was moved or removed meanwhile";
      case OWNER_WOULD_CHANGE -> "its owner would change";
      case METADATA_WOULD_CHANGE -> "more than its text would change";
      case CHECK_REFUSED -> "the check refused the new content";
      case REFUSED -> "the server refused";
      case LINE_LOST -> "the connection broke";
    };
  }

  private static String words(RemoteFailure.Reason reason, String said) {
    return switch (reason) {
      case NO_SUCH_FILE -> "no such file";
      case PERMISSION_DENIED -> "no permission";
      case ALREADY_EXISTS -> "the name is taken";
      case NO_SPACE -> "the disk is full";
      case NO_INODES -> "the file table is full";
      case QUOTA -> "the quota is used up";
      case READ_ONLY -> "mounted read-only";
      case LINE_LOST -> "the connection broke";
      case NOT_A_FOLDER -> "not a folder";
      default -> said.strip();
    };
  }
}
