package zander.desk.folder;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import java.util.concurrent.CancellationException;
import java.util.function.Function;
import java.util.function.Predicate;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;
import org.jspecify.annotations.Nullable;
import zander.desk.work.Background;

/**
 * The rows of a table: put in order, those left out that are not to be seen, and which of them are
 * selected. Many rows are arranged on another thread; the order is kept, so that narrowing costs
 * one pass without sorting, and what a newer arrangement has superseded stops. Used on the
 * interface thread.
 *
 * @param <R> a row
 * @param <K> what stays the same of a row that is read anew, such as its path
 */
public final class ArrangedRows<R, K> {
  /** More rows are arranged on another thread, so that the window does not wait. */
  public static final int MANY = 3000;

  /** An order; equal ones order the same rows in the same way. */
  public interface Order<R> {
    Comparator<R> of(List<R> all);
  }

  private record Arrangement<R>(List<R> all, Order<R> order, Predicate<R> seen) {
    boolean sorts(List<R> these, Order<R> by) {
      return all == these && order.equals(by);
    }
  }

  private record Sorted<R>(List<R> of, Order<R> by, List<R> rows) {}

  private final Background background;
  private final Function<R, K> key;
  private final ObservableList<R> rows = FXCollections.observableArrayList();
  private final ObservableList<R> selection = FXCollections.observableArrayList();
  private final Object sorting = new Object();
  private volatile @Nullable Arrangement<R> newest;
  private @Nullable Sorted<R> sorted;
  private Set<K> wanted = Set.of();
  private boolean replacing;
  private long changes;

  public ArrangedRows(Background background, Function<R, K> key) {
    this.background = background;
    this.key = key;
  }

  /**
   * Shows these rows, now or soon.
   *
   * @param all not changed any more
   */
  public void arrange(List<R> all, Order<R> order, Predicate<R> seen) {
    Arrangement<R> mine = new Arrangement<>(all, order, seen);
    newest = mine;
    if (all.size() <= MANY) {
      List<R> few = new ArrayList<>(all);
      few.sort(order.of(all));
      few.removeIf(seen.negate());
      show(few);
      return;
    }
    Shown<R> before = new Shown<>(List.copyOf(rows), List.copyOf(selection), changes);
    background.run(
        () -> next(before, seen(mine, ordered(mine))),
        next -> {
          if (mine != newest) {
            return;
          }
          if (before.changes == changes && wanted.isEmpty()) {
            show(next);
          } else {
            show(next.rows);
          }
        },
        superseded -> {});
  }

  /** What is in the table, and how often that had changed by then. */
  private record Shown<R>(List<R> rows, List<R> selection, long changes) {}

  /** Whether there is anything to change, and what of the selection is still there. */
  private Shown<R> next(Shown<R> before, List<R> arranged) {
    if (arranged.equals(before.rows)) {
      return before;
    }
    Set<K> chosen = keys(before.selection);
    return new Shown<>(
        arranged,
        chosen.isEmpty()
            ? List.of()
            : arranged.stream().filter(row -> chosen.contains(key.apply(row))).toList(),
        before.changes + 1);
  }

  private void show(Shown<R> next) {
    if (next.changes != changes) {
      replace(next.rows, next.selection);
    }
  }

  /** Shows none until the next arrangement. */
  void clear() {
    newest = null;
    show(List.of());
  }

  private List<R> ordered(Arrangement<R> mine) {
    synchronized (sorting) {
      if (sorted == null || !mine.sorts(sorted.of, sorted.by)) {
        List<R> copy = begun(mine);
        Comparator<R> by = mine.order.of(mine.all);
        copy.sort(
            (one, other) -> {
              Arrangement<R> now = newest;
              if (now != mine && (now == null || !now.sorts(mine.all, mine.order))) {
                throw new CancellationException();
              }
              return by.compare(one, other);
            });
        sorted = new Sorted<>(mine.all, mine.order, copy);
      }
      return sorted.rows;
    }
  }

  /**
   * What came with a further portion is sorted into what was in order already, and another order
   * begins with the one before, in which much is together.
   */
  private List<R> begun(Arrangement<R> mine) {
    if (sorted != null && sorted.of == mine.all) {
      return new ArrayList<>(sorted.rows);
    }
    Sorted<R> before = sorted;
    if (before == null) {
      return new ArrayList<>(mine.all);
    }
    int known = before.of.size();
    boolean more =
        known > 0
            && known <= mine.all.size()
            && mine.order.equals(before.by)
            && mine.all.get(0) == before.of.get(0)
            && mine.all.get(known - 1) == before.of.get(known - 1);
    if (!more) {
      return new ArrayList<>(mine.all);
    }
    List<R> begun = new ArrayList<>(before.rows);
    begun.addAll(mine.all.subList(known, mine.all.size()));
    return begun;
  }

  private List<R> seen(Arrangement<R> mine, List<R> inOrder) {
    List<R> seen = new ArrayList<>();
    for (R row : inOrder) {
      if (mine != newest) {
        throw new CancellationException();
      }
      if (mine.seen.test(row)) {
        seen.add(row);
      }
    }
    return seen;
  }

  private void show(List<R> arranged) {
    boolean anew =
        !wanted.isEmpty() && arranged.stream().anyMatch(row -> wanted.contains(key.apply(row)));
    if (arranged.equals(rows) && !anew) {
      return;
    }
    Set<K> chosen = anew ? wanted : keys(selection);
    wanted = anew ? Set.of() : wanted;
    List<R> again =
        chosen.isEmpty()
            ? List.of()
            : arranged.stream().filter(row -> chosen.contains(key.apply(row))).toList();
    replace(arranged, again);
  }

  private void replace(List<R> arranged, List<R> again) {
    changes++;
    // The table drops its selection with the rows; it gets it again.
    replacing = true;
    rows.setAll(arranged);
    replacing = false;
    if (!again.isEmpty() || !selection.isEmpty()) {
      selection.setAll(again);
    }
  }

  private Set<K> keys(Collection<R> of) {
    Set<K> keys = new HashSet<>();
    of.forEach(row -> keys.add(key.apply(row)));
    return keys;
  }

  /** Takes what is selected in the table. */
  public void select(List<R> chosen) {
    if (!replacing) {
      changes++;
      selection.setAll(chosen);
    }
  }

  /** Selects rows as soon as they are shown. */
  void selectNext(Collection<K> keys) {
    wanted = Set.copyOf(keys);
  }

  public ObservableList<R> rows() {
    return rows;
  }

  public ObservableList<R> selection() {
    return selection;
  }

  /** The keys of what is selected, in the order of the rows. */
  public List<K> selectedKeys() {
    Set<R> selected = Collections.newSetFromMap(new IdentityHashMap<>());
    selected.addAll(selection);
    return rows.stream().filter(selected::contains).map(key).toList();
  }
}
