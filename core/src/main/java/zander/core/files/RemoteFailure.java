package zander.core.files;

import java.io.IOException;

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
  private final String step;
  private final transient RemotePath path;
  private final String said;

  /** The same failure, about another path, or one that became known only afterwards. */
  public RemoteFailure about(RemotePath known) {
    return new RemoteFailure(reason, step, known, said, this);
  }

  /** The same failure, for a cause that was found out. */
  public RemoteFailure because(Reason found, String how) {
    return new RemoteFailure(found, step, path, how, this);
  }

  public RemoteFailure(Reason reason, String step, RemotePath path, String said, Throwable cause) {
    super(step + (path == null ? "" : " " + path) + ": " + reason + " (" + said + ")", cause);
    this.reason = reason;
    this.step = step;
    this.path = path;
    this.said = said;
  }

  public Reason reason() {
    return reason;
  }

  /** What was being done, as a verb: {@code rename}, {@code write}. */
  public String step() {
    return step;
  }

  /** What the server or its tool said; may be empty. */
  public String said() {
    return said;
  }

  /** The file it was about, or {@code null}. */
  public RemotePath path() {
    return path;
  }
}
