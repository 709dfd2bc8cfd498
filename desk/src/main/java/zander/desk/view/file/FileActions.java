package zander.desk.view.file;

import java.util.List;
import java.util.function.Supplier;
import zander.desk.sheet.Action;
import zander.desk.view.part.FrontActions;

/** What can be done in a file that is open, by name and by key. */
public final class FileActions {
  private final FrontActions<FileView> actions;

  /**
   * @param front gives the file in front, or {@code null} when something else is
   */
  public FileActions(Supplier<FileView> front) {
    actions = new FrontActions<>(front, "no file is in front");
    actions.add("Find in this file", "Ctrl+F", file -> file.find(false));
    actions.add("Replace in this file", "Ctrl+H", file -> file.find(true));
    actions.add("Next match", "F3", file -> file.findNext(1));
    actions.add("Previous match", "Shift+F3", file -> file.findNext(-1));
    actions.add("Go to a line", "Alt+G", FileView::askForLine);
    actions.add("Show your changes to this file", "Alt+V", FileView::showChanges);
    actions.add("Compare with other versions", "Alt+Shift+V", FileView::showOtherVersions);
    actions.add("Go to the other bracket", "Alt+Shift+B", file -> file.pairs().goToPartner());
    actions.add("Undo the change at this line", "Alt+Shift+Z", FileView::takeBackChange);
    actions.add("Read in another encoding …", "", FileView::askForEncoding);
    actions.add("Colour as another language …", "", FileView::askForLanguage);
    actions.add("Change line ends …", "", FileView::askForLineEnds);
    actions.add("Go to the next hidden character", "", FileView::goToHidden);
    actions.add("Checks and commands with each save …", "", FileView::askForRules);
    actions.add("Comment or uncomment lines", "Alt+Shift+C", file -> file.lines().comment());
    actions.add("Indent lines", "", file -> file.lines().indent());
    actions.add("Outdent lines", "", file -> file.lines().outdent());
    actions.add("Move lines up", "Alt+Shift+Up", file -> file.lines().move(-1));
    actions.add("Move lines down", "Alt+Shift+Down", file -> file.lines().move(1));
    actions.add("Duplicate lines", "Alt+Shift+D", file -> file.lines().duplicate());
    actions.add("Delete lines", "Alt+Shift+K", file -> file.lines().delete());
    actions.add("Join lines", "Alt+Shift+J", file -> file.lines().join());
    actions.add("Sort lines", "Alt+Shift+S", file -> file.lines().sort());
    actions.add("Wrap long lines on or off", "Alt+Shift+W", FileView::wrapOrNot);
  }

  public List<Action> all() {
    return actions.all();
  }
}
