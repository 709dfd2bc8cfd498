package zander.core.transfer.endpoint;

import org.jspecify.annotations.Nullable;
import zander.core.rights.Mode;

/**
 * Something that is transferred.
 *
 * @param from where it is, relative to the source's base, in wire form
 * @param to where it goes, relative to the target's base
 * @param node what it was when it was scanned
 * @param there what it replaces; {@code null} when the place must be free
 * @param followed whether it is what a link leads to, and is transferred in the link's place
 * @param mode what it gets; {@code null} for the other side's default
 * @param modified the time it gets, seconds since 1970-01-01 UTC, or {@link #OF_ARRIVAL}
 */
public record TransferItem(
    String from,
    String to,
    TreeEntry node,
    @Nullable TreeEntry there,
    boolean followed,
    @Nullable Mode mode,
    long modified) {
  /** The time is not kept. The second before 1970 has it by that; nothing is lost. */
  public static final long OF_ARRIVAL = -1;

  public TransferItem to(String place) {
    return new TransferItem(
        from, place, node, place.equals(to) ? there : null, followed, mode, modified);
  }
}
