package zander.desk.work;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.ObservableValue;
import javafx.collections.ListChangeListener;
import javafx.collections.ObservableList;

/**
 * What something that is closed one day listens to elsewhere. It all ends in one go; without that,
 * what lives longer, such as the settings, would hold every desk that ever was. Used on the
 * interface thread.
 */
public final class Subscriptions {
  private final List<Runnable> ends = new ArrayList<>();

  /** Tells of each new value from now on. */
  public <T> void on(ObservableValue<T> value, Consumer<? super T> told) {
    ChangeListener<T> listener = (observed, old, now) -> told.accept(now);
    value.addListener(listener);
    ends.add(() -> value.removeListener(listener));
  }

  /** Tells of each change of a list from now on. */
  public <E> void on(ObservableList<E> list, Runnable told) {
    ListChangeListener<E> listener = change -> told.run();
    list.addListener(listener);
    ends.add(() -> list.removeListener(listener));
  }

  /** Is done when they end. */
  public void atEnd(Runnable last) {
    ends.add(last);
  }

  public void end() {
    ends.forEach(Runnable::run);
    ends.clear();
  }
}
