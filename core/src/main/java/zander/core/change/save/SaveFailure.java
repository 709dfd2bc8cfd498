package zander.core.change.save;

import java.io.IOException;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;

/**
 * A save that did not happen, or of which it is not known whether it did. The file on the server is
 * whole: the old one, or with {@link ServerState#OLD_OR_NEW} the new one. Only with {@link
 * ServerState#UNFINISHED} may it be in between.
 */
public final class SaveFailure extends IOException {
  /** The steps of a save in their order. */
  public enum Step {
    CHECK,
    JOURNAL,
    CREATE,
    WRITE,
    RIGHTS,
    SYNC,
    /** The check that the person chose looks at the new content. */
    TRY,
    CHECK_AGAIN,
    RENAME,
    WRITE_IN_PLACE,
    LOOK_AFTER,
    /** The check that the person chose looks at all that the file belongs to. */
    TRY_AFTER
  }

  public enum Reason {
    /** Somebody else changed, replaced or removed the file since it was read. */
    CHANGED_MEANWHILE,
    /** The file was there and is not any more. */
    GONE,
    /** A file cannot be given its owner or group back by this account. */
    OWNER_WOULD_CHANGE,
    /** It would lose other names, its ACL or its attributes. */
    METADATA_WOULD_CHANGE,
    /** The check that the person chose does not take it; the cause is a {@link CheckRefused}. */
    CHECK_REFUSED,
    REFUSED,
    LINE_LOST
  }

  public enum ServerState {
    OLD,
    /** The line broke while the last step was under way: old or new, but whole. */
    OLD_OR_NEW,
    /**
     * It may be old, new, or in part each; the new content lies complete on the server, the old in
     * the journal, and either can be brought there.
     */
    UNFINISHED,
    NEW
  }

  private final Step step;
  private final Reason reason;
  private final ServerState state;
  private final transient FileVersion version;
  private final @Nullable transient RemotePath leftover;

  SaveFailure(
      Step step,
      Reason reason,
      ServerState state,
      FileVersion version,
      @Nullable RemotePath leftover,
      @Nullable Throwable cause) {
    super(
        "save of " + version.asked() + ": " + reason + " at " + step + ", server has " + state,
        cause);
    this.step = step;
    this.reason = reason;
    this.state = state;
    this.version = version;
    this.leftover = leftover;
  }

  public Step step() {
    return step;
  }

  public Reason reason() {
    return reason;
  }

  public ServerState state() {
    return state;
  }

  /** The version the save was based on. */
  public FileVersion version() {
    return version;
  }

  /** A temporary file that may still lie beside the target, or {@code null}. */
  public @Nullable RemotePath leftover() {
    return leftover;
  }
}
