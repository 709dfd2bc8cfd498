package zander.core.files;

import java.io.IOException;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;

/** A request about a file that the server refused or that got no answer. */
public final class RemoteFailure extends IOException {
  /** Why, as far as the server tells. SFTP version 3 has few words for it. */
  public enum Reason {
    NO_SUCH_FILE,
    PERMISSION_DENIED,
    ALREADY_EXISTS,
    NOT_A_FOLDER,
    NO_SPACE,
    /** The file system has room for bytes, but for no more names. */
    NO_INODES,
    /** What this account may use of the disk is used up. */
    QUOTA,
    /** The file system is mounted so that nothing can be written. */
    READ_ONLY,
    NOT_SUPPORTED,
    /** The server looks through links where it is asked not to: what would go is not the link. */
    LINKS_FOLLOWED,
    /** Another account has put a link in the place of it, or of a folder on the way to it. */
    LEADS_ELSEWHERE,
    /** It has more bytes than are taken of such a thing. */
    TOO_LARGE,
    /** The account's shell runs no scripts, or there is none. */
    NO_SHELL,
    /** The line is gone; what the server did with the last request is not known. */
    LINE_LOST,
    /** The server answered, but against the protocol. */
    BAD_ANSWER,
    FAILED
  }

  private final Reason reason;
  private final FileStep step;
  private final transient @Nullable RemotePath path;
  private final transient Phrase detail;

  /** The same failure, about another path, or one that became known only afterwards. */
  public RemoteFailure about(@Nullable RemotePath known) {
    return new RemoteFailure(reason, step, known, detail, this);
  }

  /** The same failure, for a cause that was found out. */
  public RemoteFailure because(Reason found, Phrase how) {
    return new RemoteFailure(found, step, path, how, this);
  }

  /**
   * @param said the words of the server or its tool; may be empty
   */
  public RemoteFailure(
      Reason reason,
      FileStep step,
      @Nullable RemotePath path,
      String said,
      @Nullable Throwable cause) {
    this(reason, step, path, Phrase.quoted(said), cause);
  }

  /**
   * @param detail what Zander found, or what the server said, quoted; {@code null} for neither
   */
  public RemoteFailure(
      Reason reason,
      FileStep step,
      @Nullable RemotePath path,
      Phrase detail,
      @Nullable Throwable cause) {
    super(
        step.written()
            + (path == null ? "" : " " + path)
            + ": "
            + reason
            + " ("
            + (detail == null ? "" : detail)
            + ")",
        cause);
    this.reason = reason;
    this.step = step;
    this.path = path;
    this.detail = detail == null ? Phrase.quoted("") : detail;
  }

  public Reason reason() {
    return reason;
  }

  /** What was being done. */
  public FileStep step() {
    return step;
  }

  /** What Zander found, or what the server or its tool said, quoted and maybe empty. */
  public Phrase detail() {
    return detail;
  }

  /** What the server or its tool said; empty when it said nothing, and when Zander found it. */
  public String said() {
    return detail.text();
  }

  /** The file it was about, or {@code null}. */
  public @Nullable RemotePath path() {
    return path;
  }
}
