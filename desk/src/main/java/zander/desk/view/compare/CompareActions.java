package zander.desk.view.compare;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import zander.desk.sheet.Action;

/** What can be done where two versions are beside each other, by name and by key. */
public final class CompareActions {
  private final Supplier<CompareView> front;
  private final List<Action> actions = new ArrayList<>();

  /**
   * @param front gives the view in front, or {@code null} when something else is
   */
  public CompareActions(Supplier<CompareView> front) {
    this.front = front;
    add("Next change", "F8", view -> view.go(1));
    add("Previous change", "Shift+F8", view -> view.go(-1));
    add("Take back this change", "Alt+Shift+Z", CompareView::takeBack);
  }

  private void add(String name, String key, Consumer<CompareView> run) {
    actions.add(
        new Action(
            name,
            key,
            () -> {
              CompareView view = front.get();
              if (view != null) {
                run.accept(view);
              }
            },
            () -> front.get() == null ? "no versions are compared in front" : ""));
  }

  public List<Action> all() {
    return List.copyOf(actions);
  }
}
