package zander.desk.find;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import zander.desk.work.Background;

/**
 * What came since the window last took some: it takes all of it at once, however many threads add
 * to it.
 */
final class ArrivedRows<E> {
  private final Background background;
  private final Consumer<List<E>> taken;
  private final List<E> waiting = new ArrayList<>();

  /**
   * @param taken given what came, on the interface thread
   */
  ArrivedRows(Background background, Consumer<List<E>> taken) {
    this.background = background;
    this.taken = taken;
  }

  /** From any thread. */
  void add(List<E> part) {
    boolean first;
    synchronized (waiting) {
      first = waiting.isEmpty();
      waiting.addAll(part);
    }
    if (first) {
      background.show(this::take);
    }
  }

  private void take() {
    List<E> part;
    synchronized (waiting) {
      part = List.copyOf(waiting);
      waiting.clear();
    }
    taken.accept(part);
  }
}
