package zander.core.files;

import java.util.Locale;
import zander.core.files.RemoteFailure.Reason;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;

/**
 * The one place that reads what a server's tools print on their error stream: in the C locale they
 * end with the system's own words for an error number (POSIX XSH {@code strerror}).
 */
public final class ToolErrors {
  private ToolErrors() {}

  /** Why a tool failed, as far as its words tell; {@code FAILED} where they do not. */
  public static Reason reason(String said) {
    String lower = said.toLowerCase(Locale.ROOT);
    if (lower.contains("no space left")) {
      return Reason.NO_SPACE;
    }
    if (lower.contains("quota exceeded")) {
      return Reason.QUOTA;
    }
    if (lower.contains("read-only file system")) {
      return Reason.READ_ONLY;
    }
    boolean denied = lower.contains("permission denied") || lower.contains("not permitted");
    return denied ? Reason.PERMISSION_DENIED : Reason.FAILED;
  }

  /**
   * The failure of a tool.
   *
   * @param said its error stream; the line that names the cause is kept
   * @param otherwise what to say when it said nothing
   */
  public static RemoteFailure failure(
      FileStep step, RemotePath path, String said, Phrase otherwise) {
    return new RemoteFailure(reason(said), step, path, line(said, otherwise), null);
  }

  /** The line that names the cause, or else the first. */
  static Phrase line(String said, Phrase otherwise) {
    return said.lines()
        .filter(text -> reason(text) != Reason.FAILED)
        .findFirst()
        .or(() -> said.lines().filter(text -> !text.isBlank()).findFirst())
        .map(line -> Phrase.quoted(line.strip()))
        .orElse(otherwise);
  }
}
