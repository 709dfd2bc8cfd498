package zander.core.transfer;

import java.io.IOException;

/**
 * A small file on its way with others: first its content or what kept it from being read, then how
 * it arrived. Handed from one side to the other by one thread at a time.
 */
final class SmallFile {
  final TransferItem item;
  byte[] content;

  /** Whether its content goes direct from server to server, and never comes here. */
  boolean direct;

  /** Whether it is too large for a load that goes through this computer. */
  boolean asLarge;

  /** Bytes of it that the person was told of already. */
  long told;

  /** What its SHA-256 must be over there; {@code null} when that is not asked for. */
  String digest;

  /** The time it had when it was read. */
  long modified;

  IOException failure;

  /** What could not be kept of one that arrived, in words; or {@code null}. */
  String lost;

  boolean arrived;

  SmallFile(TransferItem item) {
    this.item = item;
  }

  void read(byte[] whole, long at) {
    content = whole;
    modified = at;
  }

  /** The time it gets over there; -1 for that of its arrival. */
  long timeThere() {
    return item.modified() < 0 ? -1 : modified;
  }

  /** Bytes of what is carried. */
  long size() {
    return content == null ? item.node().size() : content.length;
  }

  boolean waits() {
    return (direct || content != null) && failure == null && !arrived;
  }
}
