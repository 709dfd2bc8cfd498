package zander.desk.transfer;

import java.util.List;
import java.util.function.BooleanSupplier;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.jspecify.annotations.Nullable;

/** The transfers of a desk in their order, so many at once. Interface thread only. */
public final class TransferQueue {
  private static final int AT_ONCE = 2;

  /** In the order in which they begin; those that are over stay. */
  private final ObservableList<TransferModel> all = FXCollections.observableArrayList();

  private final IntegerProperty atOnce = new SimpleIntegerProperty(AT_ONCE);

  /** What is told of a transfer. */
  public interface Listener {
    void over(TransferModel transfer);
  }

  private final Listener listener;
  private volatile boolean moving;
  private volatile long changes;

  public TransferQueue(Listener listener) {
    this.listener = listener;
    atOnce.addListener((observed, old, now) -> startNext());
  }

  public void add(TransferModel transfer) {
    all.add(transfer);
    changed();
    // One that waits for a person does not take the place of one that could go.
    transfer.questionProperty().addListener((observed, old, now) -> startNext());
    startNext();
  }

  private void startNext() {
    long running =
        all.stream().filter(one -> !one.isWaiting() && !one.isOver() && !one.isAsking()).count();
    for (TransferModel one : List.copyOf(all)) {
      if (running >= atOnce.get()) {
        return;
      }
      if (one.isWaiting()) {
        running++;
        one.start(
            () -> {
              changed();
              listener.over(one);
              startNext();
            });
      }
    }
  }

  /** Lets one that waits begin before another that waits. */
  public void sooner(TransferModel transfer) {
    int at = all.indexOf(transfer);
    for (int before = at - 1; before >= 0; before--) {
      if (all.get(before).isWaiting()) {
        all.remove(at);
        all.add(before, transfer);
        return;
      }
    }
  }

  /** Takes those away that are over. */
  public void clearOver() {
    all.removeIf(TransferModel::isOver);
  }

  /** The one that the waterline shows: one that runs, else the last. */
  public @Nullable TransferModel shown() {
    for (TransferModel one : all) {
      if (!one.isWaiting() && !one.isOver()) {
        return one;
      }
    }
    return all.isEmpty() ? null : all.get(all.size() - 1);
  }

  public long waiting() {
    return all.stream().filter(TransferModel::isWaiting).count();
  }

  public boolean isBusy() {
    return all.stream().anyMatch(one -> !one.isOver());
  }

  /**
   * Whether there is something to look at: a transfer waits or runs, or one has come or ended since
   * that was asked the last time, however short it was. Asked on any one thread.
   */
  public BooleanSupplier moves() {
    long[] seen = {-1};
    return () -> {
      long now = changes;
      boolean moved = moving || now != seen[0];
      seen[0] = now;
      return moved;
    };
  }

  private void changed() {
    moving = isBusy();
    changes++;
  }

  public ObservableList<TransferModel> all() {
    return all;
  }

  /** How many may run at the same time, 1 to 4. */
  public IntegerProperty atOnceProperty() {
    return atOnce;
  }
}
