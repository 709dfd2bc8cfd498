package zander.desk.view.file;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import zander.desk.sheet.Action;

/** What can be done in a file that is open to read, by name and by key. */
public final class ReadingActions {
  private final Supplier<ReadingView> front;
  private final List<Action> actions = new ArrayList<>();

  /**
   * @param front gives the one in front, or {@code null} when something else is
   */
  public ReadingActions(Supplier<ReadingView> front) {
    this.front = front;
    add("Find while reading", "Ctrl+F", ReadingView::find);
    add("Next line found", "F3", view -> view.find(true));
    add("Previous line found", "Shift+F3", view -> view.find(false));
    add("Go to a line, time or byte", "Alt+G", ReadingView::askForPlace);
    add("Show only some lines", "Ctrl+K", ReadingView::openFilter);
    add("Pause or follow", "Alt+Shift+P", ReadingView::pause);
    add("Wrap long lines while reading", "Alt+Shift+W", ReadingView::wrapOrNot);
  }

  private void add(String name, String key, Consumer<ReadingView> run) {
    actions.add(
        new Action(
            name,
            key,
            () -> {
              ReadingView view = front.get();
              if (view != null) {
                run.accept(view);
              }
            },
            () -> front.get() == null ? "no file is open to read in front" : ""));
  }

  public List<Action> all() {
    return List.copyOf(actions);
  }
}
