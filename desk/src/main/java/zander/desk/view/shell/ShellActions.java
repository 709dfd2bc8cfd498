package zander.desk.view.shell;

import java.util.List;
import java.util.function.Supplier;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Action;
import zander.desk.shell.ShellsBelow;
import zander.desk.term.ShellColours;
import zander.desk.view.part.FrontActions;
import zander.desk.words.Words;
import zander.desk.work.Settings;

/** What can be done with the shell that is seen, by name and by key. */
public final class ShellActions {
  private static final Words WORDS = Words.of(ShellActions.class);

  private final FrontActions<ShellView> actions;

  /**
   * @param seen gives the shell that is seen, or {@code null}
   * @param desk gives the one in front
   */
  public ShellActions(Supplier<ShellView> seen, Supplier<DeskModel> desk) {
    actions = new FrontActions<>(seen, WORDS.say("noShellIsOpen"));
    actions.add(WORDS.say("findInTheShell"), "Ctrl+Shift+F", ShellView::find);
    actions.add(WORDS.say("goWhereTheShell"), "Ctrl+Shift+Y", view -> view.model().goWhereItIs());
    actions.add(
        WORDS.say("bringTheShellTo"),
        "Ctrl+Shift+X",
        view -> view.model().bringTo(desk.get().folderInFront()));
    for (ShellColours colours : ShellColours.values()) {
      colours(desk, colours);
    }
    layout(WORDS.say("oneShellAtA"), desk, ShellsBelow.Layout.ONE);
    layout(WORDS.say("twoShellsSideBy"), desk, ShellsBelow.Layout.SIDE_BY_SIDE);
    layout(WORDS.say("twoShellsOneAbove"), desk, ShellsBelow.Layout.ONE_ABOVE_THE_OTHER);
  }

  private void colours(Supplier<DeskModel> desk, ShellColours wanted) {
    actions.add(
        new Action(
            WORDS.say("coloursOfShells", wanted.words()),
            "",
            () -> desk.get().settings().set(Settings.SHELL_COLOURS, (long) wanted.ordinal()),
            () -> desk.get() == null ? WORDS.say("openAServerFirst") : ""));
  }

  private void layout(String name, Supplier<DeskModel> desk, ShellsBelow.Layout wanted) {
    actions.add(
        new Action(
            name,
            "",
            () -> desk.get().shells().layoutProperty().set(wanted),
            () ->
                desk.get() == null || desk.get().shells().shells().size() < 2
                    ? WORDS.say("openTwoShellsFirst")
                    : ""));
  }

  public List<Action> all() {
    return actions.all();
  }
}
