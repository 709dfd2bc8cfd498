package zander.desk.shell;

import java.util.List;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ListChangeListener;
import javafx.collections.ObservableList;
import zander.core.files.RemotePath;
import zander.desk.sheet.Sheet;

/** The shells that share the space below the sheets of a desk: one is seen, each has its tab. */
public final class ShellsBelow {
  /** How many of them are seen, and where. */
  public enum Layout {
    ONE,
    SIDE_BY_SIDE,
    ONE_ABOVE_THE_OTHER
  }

  private final ShellSheets opening;
  private final ObservableList<ShellModel> shells = FXCollections.observableArrayList();
  private final ObjectProperty<ShellModel> front = new SimpleObjectProperty<>();
  private final ObjectProperty<Layout> layout = new SimpleObjectProperty<>(Layout.ONE);
  private List<ShellModel> seen = List.of();

  ShellsBelow(ShellSheets opening) {
    this.opening = opening;
    ObservableList<Sheet> sheets = opening.desk().openSheets().all();
    sheets.addListener(
        (ListChangeListener<Sheet>)
            change -> {
              while (change.next()) {
                change.getRemoved().forEach(this::gone);
                change.getAddedSubList().forEach(this::come);
              }
            });
  }

  private void come(Sheet sheet) {
    if (sheet instanceof ShellModel shell) {
      shell
          .belowProperty()
          .addListener(
              (observed, old, below) -> {
                if (below) {
                  put(shell);
                } else {
                  gone(shell);
                }
              });
      put(shell);
    }
  }

  private void put(ShellModel shell) {
    shells.add(shell);
    front.set(shell);
  }

  private void gone(Sheet sheet) {
    int at = shells.indexOf(sheet);
    if (at < 0) {
      return;
    }
    shells.remove(at);
    if (front.get() == sheet) {
      front.set(shells.isEmpty() ? null : shells.get(Math.min(at, shells.size() - 1)));
    }
  }

  /** Opens another one, which the server keeps; see {@link ShellSheets#openKept}. */
  public void openKept(RemotePath at) {
    opening.openKept(at);
  }

  /**
   * Those that are seen, in the order of their tabs: the one in front, and where two are to be, the
   * one that was seen before it.
   */
  public List<ShellModel> seen() {
    ShellModel now = front.get();
    if (now == null || layout.get() == Layout.ONE || shells.size() < 2) {
      seen = now == null ? List.of() : List.of(now);
    } else if (seen.size() < 2 || !seen.contains(now) || !shells.containsAll(seen)) {
      ShellModel other =
          seen.stream()
              .filter(one -> one != now && shells.contains(one))
              .findFirst()
              .orElseGet(() -> neighbour(now));
      seen = shells.stream().filter(one -> one == now || one == other).toList();
    }
    return seen;
  }

  private ShellModel neighbour(ShellModel of) {
    int at = shells.indexOf(of);
    return shells.get(at > 0 ? at - 1 : 1);
  }

  public ObjectProperty<Layout> layoutProperty() {
    return layout;
  }

  /** Brings the next one, or the one before, to the front. */
  public void step(int by) {
    if (!shells.isEmpty()) {
      front.set(shells.get(Math.floorMod(shells.indexOf(front.get()) + by, shells.size())));
    }
  }

  /** Those below, in the order of their tabs. */
  public ObservableList<ShellModel> shells() {
    return shells;
  }

  /** The one that is seen; {@code null} when none is below. */
  public ObjectProperty<ShellModel> frontProperty() {
    return front;
  }
}
