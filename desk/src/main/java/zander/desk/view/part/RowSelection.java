package zander.desk.view.part;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Collection;
import java.util.Collections;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Set;
import java.util.function.IntFunction;
import javafx.collections.ListChangeListener;
import javafx.collections.ObservableList;
import javafx.collections.ObservableListBase;
import javafx.scene.control.SelectionMode;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableColumnBase;
import javafx.scene.control.TablePosition;
import javafx.scene.control.TableView;
import org.jspecify.annotations.Nullable;

/**
 * Which rows of a table are selected, a bit for each. The table's own model keeps an object for
 * each selected row and looks for it again when it goes, which takes 6 s to drop 100,000 of them;
 * here every change costs one pass over the bits, and is told once.
 */
final class RowSelection<R> extends TableView.TableViewSelectionModel<R> {
  private final TableView<R> table;
  private final BitSet chosen = new BitSet();

  /** The numbers of the selected rows, counted when asked for; {@code null} after a change. */
  private int @Nullable [] numbers = new int[0];

  private final Chosen<Integer> indices = new Chosen<>(row -> row);
  private final Chosen<R> items = new Chosen<>(this::getModelItem);

  @SuppressWarnings("rawtypes") // As the library's own list of them.
  private final Chosen<TablePosition> cells = new Chosen<>(this::position);

  private final ListChangeListener<R> rowsListener = this::rowsChanged;

  RowSelection(TableView<R> table) {
    super(table);
    this.table = table;
    table.itemsProperty().addListener((observed, old, now) -> watch(old, now));
    watch(null, table.getItems());
  }

  private void watch(@Nullable ObservableList<R> old, ObservableList<R> now) {
    if (old != null) {
      old.removeListener(rowsListener);
    }
    if (now != null) {
      now.addListener(rowsListener);
    }
    clearSelection();
  }

  /** One of the three ways in which a table asks what is selected. */
  private final class Chosen<E> extends ObservableListBase<E> {
    private final IntFunction<E> ofRow;

    Chosen(IntFunction<E> ofRow) {
      this.ofRow = ofRow;
    }

    @Override
    public E get(int index) {
      return ofRow.apply(numbers()[index]);
    }

    @Override
    public int size() {
      return numbers().length;
    }

    boolean isHeard() {
      return hasListeners();
    }

    void tell(List<E> before) {
      beginChange();
      nextReplace(0, size(), before);
      endChange();
    }
  }

  private int[] numbers() {
    if (numbers == null) {
      numbers = chosen.stream().toArray();
    }
    return numbers;
  }

  private TablePosition<R, ?> position(int row) {
    return new TablePosition<R, Object>(table, row, null);
  }

  /** Makes a change of the bits and tells it once, if it is one. */
  private void change(Runnable what) {
    int[] before = numbers();
    what.run();
    numbers = null;
    if (!Arrays.equals(before, numbers())) {
      tell(before);
    }
  }

  private void tell(int[] before) {
    if (indices.isHeard()) {
      indices.tell(Arrays.stream(before).boxed().toList());
    }
    if (cells.isHeard()) {
      cells.tell(Arrays.stream(before).mapToObj(this::cell).toList());
    }
    // Whoever asks for what is no longer selected gets nothing: the rows may be others by now.
    items.tell(Collections.nCopies(before.length, null));
  }

  @SuppressWarnings("rawtypes")
  private TablePosition cell(int row) {
    return position(row);
  }

  private void rowsChanged(ListChangeListener.Change<? extends R> change) {
    change(
        () -> {
          while (change.next()) {
            if (change.wasPermutated()) {
              permute(change);
            } else if (change.wasAdded() || change.wasRemoved()) {
              shift(change.getFrom(), change.getRemovedSize(), change.getAddedSize());
            }
          }
        });
    int lead = chosen.isEmpty() ? -1 : Math.max(chosen.length() - 1, 0);
    if (getSelectedIndex() < 0 || !chosen.get(getSelectedIndex())) {
      setSelectedIndex(lead);
    }
    setSelectedItem(getModelItem(getSelectedIndex()));
  }

  private void permute(ListChangeListener.Change<? extends R> change) {
    BitSet moved = new BitSet();
    chosen.stream()
        .forEach(
            row -> {
              boolean moves = row >= change.getFrom() && row < change.getTo();
              moved.set(moves ? change.getPermutation(row) : row);
            });
    chosen.clear();
    chosen.or(moved);
  }

  private void shift(int from, int removed, int added) {
    BitSet after = new BitSet();
    chosen.stream()
        .filter(row -> row < from || row >= from + removed)
        .forEach(row -> after.set(row < from ? row : row - removed + added));
    chosen.clear();
    chosen.or(after);
  }

  /** Selects these rows and no others, in one pass over the table. */
  void selectOnly(Collection<R> wanted) {
    Set<R> same = Collections.newSetFromMap(new IdentityHashMap<>());
    same.addAll(wanted);
    BitSet found = rowsIn(same);
    if (found.cardinality() < same.size()) {
      found = rowsIn(new HashSet<>(wanted));
    }
    BitSet now = found;
    change(
        () -> {
          chosen.clear();
          chosen.or(now);
        });
    lead(now.length() - 1);
  }

  private BitSet rowsIn(Set<R> wanted) {
    BitSet found = new BitSet();
    if (!wanted.isEmpty()) {
      int row = 0;
      for (R item : table.getItems()) {
        found.set(row++, wanted.contains(item));
      }
    }
    return found;
  }

  /** The row that keys go on from. */
  private void lead(int row) {
    setSelectedIndex(row);
    focus(row);
  }

  private boolean isRow(int row) {
    return row >= 0 && row < getItemCount();
  }

  @Override
  public ObservableList<Integer> getSelectedIndices() {
    return indices;
  }

  @Override
  public ObservableList<R> getSelectedItems() {
    return items;
  }

  @Override
  @SuppressWarnings("rawtypes")
  public ObservableList<TablePosition> getSelectedCells() {
    return cells;
  }

  @Override
  public boolean isSelected(int row) {
    return isRow(row) && chosen.get(row);
  }

  @Override
  public boolean isSelected(int row, TableColumn<R, ?> column) {
    return isSelected(row);
  }

  @Override
  public boolean isEmpty() {
    return chosen.isEmpty();
  }

  private boolean onlyOne() {
    return getSelectionMode() == SelectionMode.SINGLE;
  }

  @Override
  public void select(int row) {
    if (onlyOne()) {
      clearAndSelect(row);
    } else if (isRow(row)) {
      change(() -> chosen.set(row));
      lead(row);
    }
  }

  @Override
  public void select(int row, TableColumn<R, ?> column) {
    select(row);
  }

  @Override
  public void select(R item) {
    select(table.getItems().indexOf(item));
  }

  @Override
  public void clearAndSelect(int row) {
    if (isRow(row)) {
      change(
          () -> {
            chosen.clear();
            chosen.set(row);
          });
      lead(row);
    }
  }

  @Override
  public void clearAndSelect(int row, TableColumn<R, ?> column) {
    clearAndSelect(row);
  }

  @Override
  public void selectIndices(int row, int... rows) {
    if (onlyOne()) {
      select(row);
      return;
    }
    List<Integer> all = new ArrayList<>(List.of(row));
    if (rows != null) {
      Arrays.stream(rows).forEach(all::add);
    }
    change(() -> all.stream().filter(this::isRow).forEach(chosen::set));
    lead(all.get(all.size() - 1));
  }

  /** From the first, included, to the last, excluded, in either direction. */
  @Override
  public void selectRange(int start, int end) {
    if (start == end || onlyOne()) {
      return;
    }
    int from = Math.max(0, start < end ? start : end + 1);
    int to = Math.min(getItemCount(), start < end ? end : start + 1);
    if (from < to) {
      change(() -> chosen.set(from, to));
      lead(start < end ? to - 1 : from);
    }
  }

  @Override
  public void selectRange(
      int minRow, TableColumnBase<R, ?> minColumn, int maxRow, TableColumnBase<R, ?> maxColumn) {
    selectRange(minRow, maxRow + 1);
  }

  @Override
  public void selectAll() {
    if (getItemCount() > 0 && !onlyOne()) {
      change(() -> chosen.set(0, getItemCount()));
      lead(isRow(getFocusedIndex()) ? getFocusedIndex() : getItemCount() - 1);
    }
  }

  @Override
  public void clearSelection() {
    change(chosen::clear);
    lead(-1);
  }

  @Override
  public void clearSelection(int row) {
    if (isSelected(row)) {
      change(() -> chosen.clear(row));
      if (chosen.isEmpty() || getSelectedIndex() == row) {
        setSelectedIndex(chosen.length() - 1);
      }
    }
  }

  @Override
  public void clearSelection(int row, TableColumn<R, ?> column) {
    clearSelection(row);
  }

  @Override
  public void selectFirst() {
    select(0);
  }

  @Override
  public void selectLast() {
    select(getItemCount() - 1);
  }

  @Override
  public void selectPrevious() {
    select(getFocusedIndex() < 0 ? getItemCount() - 1 : getFocusedIndex() - 1);
  }

  @Override
  public void selectNext() {
    select(getFocusedIndex() + 1);
  }

  @Override
  public void selectAboveCell() {
    selectPrevious();
  }

  @Override
  public void selectBelowCell() {
    selectNext();
  }

  /** Rows are selected whole: there is nothing beside one. */
  @Override
  public void selectLeftCell() {}

  @Override
  public void selectRightCell() {}
}
