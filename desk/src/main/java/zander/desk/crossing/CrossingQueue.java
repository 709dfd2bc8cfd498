package zander.desk.crossing;

import java.util.List;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;

/** The crossings of a desk in their order, so many at once. Interface thread only. */
public final class CrossingQueue {
  private static final int AT_ONCE = 2;

  /** In the order in which they begin; those that are over stay. */
  private final ObservableList<CrossingModel> all = FXCollections.observableArrayList();

  private final IntegerProperty atOnce = new SimpleIntegerProperty(AT_ONCE);

  /** What is told of a crossing. */
  public interface Listener {
    void over(CrossingModel crossing);
  }

  private final Listener listener;

  public CrossingQueue(Listener listener) {
    this.listener = listener;
    atOnce.addListener((observed, old, now) -> startNext());
  }

  public void add(CrossingModel crossing) {
    all.add(crossing);
    // One that waits for a person does not take the place of one that could go.
    crossing.questionProperty().addListener((observed, old, now) -> startNext());
    startNext();
  }

  private void startNext() {
    long running =
        all.stream().filter(one -> !one.isWaiting() && !one.isOver() && !one.isAsking()).count();
    for (CrossingModel one : List.copyOf(all)) {
      if (running >= atOnce.get()) {
        return;
      }
      if (one.isWaiting()) {
        running++;
        one.start(
            () -> {
              listener.over(one);
              startNext();
            });
      }
    }
  }

  /** Lets one that waits begin before another that waits. */
  public void sooner(CrossingModel crossing) {
    int at = all.indexOf(crossing);
    for (int before = at - 1; before >= 0; before--) {
      if (all.get(before).isWaiting()) {
        all.remove(at);
        all.add(before, crossing);
        return;
      }
    }
  }

  /** Takes those away that are over. */
  public void clearOver() {
    all.removeIf(CrossingModel::isOver);
  }

  /** The one that the waterline shows: one that runs, else the last. */
  public CrossingModel shown() {
    for (CrossingModel one : all) {
      if (!one.isWaiting() && !one.isOver()) {
        return one;
      }
    }
    return all.isEmpty() ? null : all.get(all.size() - 1);
  }

  public long waiting() {
    return all.stream().filter(CrossingModel::isWaiting).count();
  }

  public boolean isBusy() {
    return all.stream().anyMatch(one -> !one.isOver());
  }

  public ObservableList<CrossingModel> all() {
    return all;
  }

  /** How many may run at the same time, 1 to 4. */
  public IntegerProperty atOnceProperty() {
    return atOnce;
  }
}
