package zander.core.transfer.rules;

import org.jspecify.annotations.Nullable;
import zander.core.rights.Mode;
import zander.core.transfer.endpoint.TreeEntry;

/**
 * The rules a transfer keeps to.
 *
 * @param keepTimes whether files and folders keep their times, or get that of their arrival
 * @param modes where the modes of what arrives come from
 * @param fileMode the mode of files for {@link Modes#FIXED}, else {@code null}
 * @param folderMode the same for folders
 * @param owner the account that files get after their arrival on a server, where that is allowed;
 *     empty to leave it
 * @param group the same for the group
 * @param leaveOut what is not transferred
 * @param check whether each file is compared by checksum before it is put in its place
 * @param mirror whether what is only over there is deleted, which needs a plan that was looked at
 */
public record TransferRules(
    ConflictRule whenExists,
    boolean keepTimes,
    Modes modes,
    @Nullable Mode fileMode,
    @Nullable Mode folderMode,
    String owner,
    String group,
    Links links,
    IgnorePatterns leaveOut,
    boolean check,
    boolean mirror) {

  /** Where modes come from. */
  public enum Modes {
    FROM_SOURCE,
    FIXED,
    /** As the folder that it arrives in keeps them; as at the source where it keeps none. */
    KEPT,
    /** What the other side gives new files: the server's umask. */
    DEFAULT
  }

  /** What happens to links. */
  public enum Links {
    AS_LINKS,
    /** What they lead to is transferred in their place. */
    FOLLOWED,
    LEFT_OUT
  }

  /** Modes, times and links as they are, asking about names that are taken. */
  public static TransferRules of(ConflictRule whenExists) {
    return new TransferRules(
        whenExists,
        true,
        Modes.FROM_SOURCE,
        null,
        null,
        "",
        "",
        Links.AS_LINKS,
        IgnorePatterns.NOTHING,
        false,
        false);
  }

  /**
   * The mode of what arrives; {@code null} for the other side's default.
   *
   * @param to where, relative to the target's base, in wire form
   * @param kept {@code null} where nothing is kept
   */
  public @Nullable Mode modeFor(
      TreeEntry node, boolean folder, String to, @Nullable KeptModes kept) {
    return switch (modes) {
      case FROM_SOURCE -> node.mode();
      case KEPT -> kept == null ? node.mode() : kept.of(to, node.mode(), folder);
      case FIXED -> folder ? folderMode : fileMode;
      case DEFAULT -> null;
    };
  }

  /** Whether a link stands for what it leads to: not one that is left out by its own name. */
  public boolean follows(String path, TreeEntry link) {
    return links == Links.FOLLOWED && leaveOut.by(path, false) == null;
  }

  /** The time of what arrives, seconds since 1970-01-01 UTC; -1 for that of its arrival. */
  public long timeFor(TreeEntry node) {
    return keepTimes ? node.modified() : -1;
  }

  public TransferRules whenExists(ConflictRule other) {
    return new TransferRules(
        other,
        keepTimes,
        modes,
        fileMode,
        folderMode,
        owner,
        group,
        links,
        leaveOut,
        check,
        mirror);
  }

  public TransferRules keepTimes(boolean other) {
    return new TransferRules(
        whenExists,
        other,
        modes,
        fileMode,
        folderMode,
        owner,
        group,
        links,
        leaveOut,
        check,
        mirror);
  }

  public TransferRules modes(Modes other, @Nullable Mode files, @Nullable Mode folders) {
    return new TransferRules(
        whenExists, keepTimes, other, files, folders, owner, group, links, leaveOut, check, mirror);
  }

  public TransferRules owner(String user, String ofGroup) {
    return new TransferRules(
        whenExists,
        keepTimes,
        modes,
        fileMode,
        folderMode,
        user,
        ofGroup,
        links,
        leaveOut,
        check,
        mirror);
  }

  public TransferRules links(Links other) {
    return new TransferRules(
        whenExists,
        keepTimes,
        modes,
        fileMode,
        folderMode,
        owner,
        group,
        other,
        leaveOut,
        check,
        mirror);
  }

  public TransferRules leaveOut(IgnorePatterns other) {
    return new TransferRules(
        whenExists,
        keepTimes,
        modes,
        fileMode,
        folderMode,
        owner,
        group,
        links,
        other,
        check,
        mirror);
  }

  public TransferRules check(boolean other) {
    return new TransferRules(
        whenExists,
        keepTimes,
        modes,
        fileMode,
        folderMode,
        owner,
        group,
        links,
        leaveOut,
        other,
        mirror);
  }

  public TransferRules mirror(boolean other) {
    return new TransferRules(
        whenExists,
        keepTimes,
        modes,
        fileMode,
        folderMode,
        owner,
        group,
        links,
        leaveOut,
        check,
        other);
  }
}
