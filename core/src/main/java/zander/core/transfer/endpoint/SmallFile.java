package zander.core.transfer.endpoint;

import java.io.IOException;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.Phrase;

/**
 * A small file on its way with others: first its content or what kept it from being read, then how
 * it arrived. Handed from one side to the other by one thread at a time.
 */
public final class SmallFile {
  public final TransferItem item;
  public byte @Nullable [] content;

  /** Whether its content goes direct from server to server, and never comes here. */
  public boolean direct;

  /** Whether it is too large for a load that goes through this computer. */
  public boolean asLarge;

  /** Bytes of it that the person was told of already. */
  public long told;

  /** What its SHA-256 must be over there; {@code null} when that is not asked for. */
  public @Nullable String digest;

  /** The time it had when it was read. */
  public long modified;

  public @Nullable IOException failure;

  /** What could not be kept of one that arrived, in words; or {@code null}. */
  public @Nullable Phrase lost;

  public boolean arrived;

  public SmallFile(TransferItem item) {
    this.item = item;
  }

  public void read(byte[] whole, long at) {
    content = whole;
    modified = at;
  }

  /** What was read of it; of one that {@link #waits} and does not go direct. */
  public byte[] bytes() {
    return Objects.requireNonNull(content);
  }

  /** The time it gets over there, or {@link TransferItem#OF_ARRIVAL}. */
  public long timeThere() {
    return item.modified() == TransferItem.OF_ARRIVAL ? TransferItem.OF_ARRIVAL : modified;
  }

  /** Bytes of what is carried. */
  public long size() {
    return content == null ? item.node().size() : content.length;
  }

  public boolean waits() {
    return (direct || content != null) && failure == null && !arrived;
  }
}
