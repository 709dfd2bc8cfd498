package zander.core.transfer.resume;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import java.util.List;
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

  /** Rules as they are written. */
  @JsonIgnoreProperties(ignoreUnknown = true)
  public record Kept(
      ConflictRule whenExists,
      boolean keepTimes,
      TransferRules.Modes modes,
      int fileMode,
      int folderMode,
      String owner,
      String group,
      TransferRules.Links links,
      String leaveOut,
      boolean check) {

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
