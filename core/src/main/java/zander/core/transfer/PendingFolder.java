package zander.core.transfer;

import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.transfer.endpoint.TransferItem;

/**
 * A folder that is being filled. When the last of what is in it has come, it is finished: filling a
 * folder changes its time, and a closed folder could not be filled.
 */
final class PendingFolder {
  final @Nullable PendingFolder parent;
  final String from;
  final String to;

  /** Whether it was on the target before this transfer made anything in it. */
  final boolean existed;

  /** How many followed links lead here. */
  final int followed;

  /** What it gets in the end; {@code null} to leave it as it is. */
  private final @Nullable TransferItem finish;

  private final AtomicInteger open = new AtomicInteger(1);
  private final Consumer<TransferItem> finished;

  PendingFolder(Consumer<TransferItem> finished) {
    this(null, "", "", true, 0, null, finished);
  }

  private PendingFolder(
      @Nullable PendingFolder parent,
      String from,
      String to,
      boolean existed,
      int followed,
      @Nullable TransferItem finish,
      Consumer<TransferItem> finished) {
    this.parent = parent;
    this.from = from;
    this.to = to;
    this.existed = existed;
    this.followed = followed;
    this.finish = finish;
    this.finished = finished;
  }

  PendingFolder child(TransferItem folder, boolean wasThere, boolean made, boolean link) {
    open.incrementAndGet();
    return new PendingFolder(
        this,
        folder.from(),
        folder.to(),
        wasThere,
        followed + (link ? 1 : 0),
        made ? folder : null,
        finished);
  }

  /** One more thing is to come into it. */
  void expect() {
    open.incrementAndGet();
  }

  /** Whether nothing more is to come into it. */
  boolean isFull() {
    return open.get() == 0;
  }

  /** Something came into it after it was finished: it and those above are to be finished again. */
  void cameLate() {
    if (isFull()) {
      if (finish != null) {
        finished.accept(finish);
      }
      if (parent != null) {
        parent.cameLate();
      }
    }
  }

  /** One thing less is to come, or all of it was told. */
  void leave() {
    if (open.decrementAndGet() == 0) {
      if (finish != null) {
        finished.accept(finish);
      }
      if (parent != null) {
        parent.leave();
      }
    }
  }
}
