package zander.desk.view.compare;

import java.util.List;
import java.util.function.Supplier;
import zander.desk.sheet.Action;
import zander.desk.view.part.FrontActions;

/** What can be done where two versions are beside each other, by name and by key. */
public final class CompareActions {
  private final FrontActions<CompareView> actions;

  /**
   * @param front gives the view in front, or {@code null} when something else is
   */
  public CompareActions(Supplier<CompareView> front) {
    actions = new FrontActions<>(front, "no versions are compared in front");
    actions.add("Next change", "F8", view -> view.go(1));
    actions.add("Previous change", "Shift+F8", view -> view.go(-1));
    actions.add("Take back this change", "Alt+Shift+Z", CompareView::takeBack);
  }

  public List<Action> all() {
    return actions.all();
  }
}
