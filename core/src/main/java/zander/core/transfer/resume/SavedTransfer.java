package zander.core.transfer.resume;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.util.List;
import java.util.Objects;
import zander.core.rights.Mode;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.IgnorePatterns;
import zander.core.transfer.rules.TransferRules;

/**
 * What a transfer is, as it is kept on this computer.
 *
 * @param id unique among those of one computer
 * @param at milliseconds since 1970-01-01 UTC
 * @param desk the server's name in the book
 * @param from the base it comes from, for people and to go on from
 * @param to the base it goes to
 * @param names what is transferred, in wire form
 * @param mark of its temporary names
 * @param rules see {@link TransferRules}
 */
@JsonIgnoreProperties(ignoreUnknown = true)
public record SavedTransfer(
    String id,
    long at,
    String desk,
    Direction direction,
    String from,
    String to,
    List<String> names,
    String mark,
    Kept rules) {

  /** Rules as they are written; what is not written, {@code null}, is as usual. */
  @JsonIgnoreProperties(ignoreUnknown = true)
  public record Kept(
      ConflictRule whenExists,
      Boolean keepTimes,
      TransferRules.Modes modes,
      Integer fileMode,
      Integer folderMode,
      String owner,
      String group,
      TransferRules.Links links,
      String leaveOut,
      Boolean check) {

    public Kept {
      whenExists = Objects.requireNonNullElse(whenExists, ConflictRule.ASK);
      keepTimes = Objects.requireNonNullElse(keepTimes, true);
      modes = Objects.requireNonNullElse(modes, TransferRules.Modes.FROM_SOURCE);
      fileMode = Objects.requireNonNullElse(fileMode, -1);
      folderMode = Objects.requireNonNullElse(folderMode, -1);
      owner = Objects.requireNonNullElse(owner, "");
      group = Objects.requireNonNullElse(group, "");
      links = Objects.requireNonNullElse(links, TransferRules.Links.AS_LINKS);
      leaveOut = Objects.requireNonNullElse(leaveOut, IgnorePatterns.USUAL);
      check = Objects.requireNonNullElse(check, false);
    }

    public static Kept of(TransferRules rules) {
      return new Kept(
          rules.whenExists(),
          rules.keepTimes(),
          rules.modes(),
          rules.fileMode() == null ? -1 : rules.fileMode().bits(),
          rules.folderMode() == null ? -1 : rules.folderMode().bits(),
          rules.owner(),
          rules.group(),
          rules.links(),
          rules.leaveOut().text(),
          rules.check());
    }

    /** A mirror is never made without its plan, so that is not kept. */
    public TransferRules rules() {
      return TransferRules.of(whenExists)
          .keepTimes(keepTimes)
          .modes(
              modes,
              fileMode < 0 ? null : new Mode(fileMode),
              folderMode < 0 ? null : new Mode(folderMode))
          .owner(owner, group)
          .links(links)
          .leaveOut(new IgnorePatterns(leaveOut))
          .check(check);
    }
  }
}
