package zander.desk.view.shell;

import java.util.List;
import java.util.function.Supplier;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Action;
import zander.desk.shell.ShellsBelow;
import zander.desk.term.ShellColours;
import zander.desk.view.part.FrontActions;
import zander.desk.work.Settings;

/** What can be done with the shell that is seen, by name and by key. */
public final class ShellActions {
  private final FrontActions<ShellView> actions;

  /**
   * @param seen gives the shell that is seen, or {@code null}
   * @param desk gives the one in front
   */
  public ShellActions(Supplier<ShellView> seen, Supplier<DeskModel> desk) {
    actions = new FrontActions<>(seen, "no shell is open");
    actions.add("Find in the shell", "Ctrl+Shift+F", ShellView::find);
    actions.add("Go where the shell is", "Ctrl+Shift+Y", view -> view.model().goWhereItIs());
    actions.add(
        "Bring the shell to this folder",
        "Ctrl+Shift+X",
        view -> view.model().bringTo(desk.get().folderInFront()));
    for (ShellColours colours : ShellColours.values()) {
      colours(desk, colours);
    }
    layout("One shell at a time", desk, ShellsBelow.Layout.ONE);
    layout("Two shells side by side", desk, ShellsBelow.Layout.SIDE_BY_SIDE);
    layout("Two shells, one above the other", desk, ShellsBelow.Layout.ONE_ABOVE_THE_OTHER);
  }

  private void colours(Supplier<DeskModel> desk, ShellColours wanted) {
    actions.add(
        new Action(
            "Colours of shells: " + wanted.words(),
            "",
            () -> desk.get().settings().set(Settings.SHELL_COLOURS, (long) wanted.ordinal()),
            () -> desk.get() == null ? "open a server first" : ""));
  }

  private void layout(String name, Supplier<DeskModel> desk, ShellsBelow.Layout wanted) {
    actions.add(
        new Action(
            name,
            "",
            () -> desk.get().shells().layoutProperty().set(wanted),
            () ->
                desk.get() == null || desk.get().shells().shells().size() < 2
                    ? "open two shells first"
                    : ""));
  }

  public List<Action> all() {
    return actions.all();
  }
}
