package zander.desk.sheet;

import java.util.List;
import java.util.Optional;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.SimpleObjectProperty;
import javafx.collections.FXCollections;
import javafx.collections.ObservableList;

/**
 * The sheets of a desk, and the one in front. The first is there as long as the desk is. Used on
 * the interface thread only.
 */
public final class OpenSheets {
  private final ObservableList<Sheet> all = FXCollections.observableArrayList();
  private final ObjectProperty<Sheet> front = new SimpleObjectProperty<>();
  private final Sheet first;

  /**
   * @param first in front until another is shown, and never closed
   */
  public OpenSheets(Sheet first) {
    this.first = first;
    all.add(first);
    front.set(first);
  }

  /** All, in the order of their tabs. */
  public ObservableList<Sheet> all() {
    return all;
  }

  public ObjectProperty<Sheet> frontProperty() {
    return front;
  }

  public Sheet front() {
    return front.get();
  }

  /** The one that is always there. */
  public Sheet first() {
    return first;
  }

  /** Those of one kind, in the order of their tabs. */
  public <T extends Sheet> List<T> of(Class<T> kind) {
    return all.stream().filter(kind::isInstance).map(kind::cast).toList();
  }

  /** The first of a kind, brought to the front. */
  public <T extends Sheet> Optional<T> bringToFront(Class<T> kind) {
    Optional<T> found = of(kind).stream().findFirst();
    found.ifPresent(front::set);
    return found;
  }

  /** Adds one and shows it. */
  public void show(Sheet sheet) {
    all.add(sheet);
    front.set(sheet);
  }

  /** Adds one behind the one in front, in the place of another of its kind. */
  public void offer(Sheet sheet) {
    boolean shown = front.get().getClass() == sheet.getClass();
    List<? extends Sheet> before = of(sheet.getClass());
    all.add(sheet);
    if (shown) {
      front.set(sheet);
    }
    before.forEach(this::remove);
  }

  /** Tells or asks in the first sheet, which comes to the front. */
  public void askInFront(Question question) {
    front.set(first);
    first.ask(question);
  }

  /** Closes a sheet as the person wishes; one that would lose something asks first, in itself. */
  public void close(Sheet sheet) {
    if (sheet == first) {
      return;
    }
    if (sheet.isUnsaved()) {
      front.set(sheet);
      sheet.askBeforeClosing(() -> remove(sheet));
      return;
    }
    remove(sheet);
  }

  private void remove(Sheet sheet) {
    sheet.close();
    sheet.discard();
    // First out of the front: a view asked for a sheet that is gone would be made again.
    if (front.get() == sheet) {
      front.set(first);
    }
    all.remove(sheet);
  }

  /** The desk has ended: all let go of what they hold, and what is unsaved is kept for later. */
  public void end() {
    List.copyOf(all).forEach(Sheet::close);
  }
}
