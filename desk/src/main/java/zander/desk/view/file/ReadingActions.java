package zander.desk.view.file;

import java.util.List;
import java.util.function.Supplier;
import zander.desk.sheet.Action;
import zander.desk.view.part.FrontActions;

/** What can be done in a file that is open to read, by name and by key. */
public final class ReadingActions {
  private final FrontActions<ReadingView> actions;

  /**
   * @param front gives the one in front, or {@code null} when something else is
   */
  public ReadingActions(Supplier<ReadingView> front) {
    actions = new FrontActions<>(front, "no file is open to read in front");
    actions.add("Find while reading", "Ctrl+F", ReadingView::find);
    actions.add("Next line found", "F3", view -> view.find(true));
    actions.add("Previous line found", "Shift+F3", view -> view.find(false));
    actions.add("Go to a line, time or byte", "Alt+G", ReadingView::askForPlace);
    actions.add("Show only some lines", "Ctrl+K", ReadingView::openFilter);
    actions.add("Pause or follow", "Alt+Shift+P", ReadingView::pause);
    actions.add("Wrap long lines while reading", "Alt+Shift+W", ReadingView::wrapOrNot);
  }

  public List<Action> all() {
    return actions.all();
  }
}
