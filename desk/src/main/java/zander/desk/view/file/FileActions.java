package zander.desk.view.file;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import zander.desk.sheet.Action;

/** What can be done in a file that is open, by name and by key. */
public final class FileActions {
  private final Supplier<FileView> front;
  private final List<Action> actions = new ArrayList<>();

  /**
   * @param front gives the file in front, or {@code null} when something else is
   */
  public FileActions(Supplier<FileView> front) {
    this.front = front;
    add("Find in this file", "Ctrl+F", file -> file.find(false));
    add("Replace in this file", "Ctrl+H", file -> file.find(true));
    add("Next match", "F3", file -> file.findNext(1));
    add("Previous match", "Shift+F3", file -> file.findNext(-1));
    add("Go to a line", "Alt+G", FileView::askForLine);
    add("Show your changes to this file", "Alt+V", FileView::showChanges);
    add("Compare with other versions", "Alt+Shift+V", FileView::showOtherVersions);
    add("Go to the other bracket", "Alt+Shift+B", file -> file.pairs().goToPartner());
    add("Undo the change at this line", "Alt+Shift+Z", FileView::takeBackChange);
    add("Read in another encoding …", "", FileView::askForEncoding);
    add("Colour as another language …", "", FileView::askForLanguage);
    add("Change line ends …", "", FileView::askForLineEnds);
    add("Go to the next hidden character", "", FileView::goToHidden);
    add("Checks and commands with each save …", "", FileView::askForRules);
    add("Comment or uncomment lines", "Alt+Shift+C", file -> file.lines().comment());
    add("Indent lines", "", file -> file.lines().indent());
    add("Outdent lines", "", file -> file.lines().outdent());
    add("Move lines up", "Alt+Shift+Up", file -> file.lines().move(-1));
    add("Move lines down", "Alt+Shift+Down", file -> file.lines().move(1));
    add("Duplicate lines", "Alt+Shift+D", file -> file.lines().duplicate());
    add("Delete lines", "Alt+Shift+K", file -> file.lines().delete());
    add("Join lines", "Alt+Shift+J", file -> file.lines().join());
    add("Sort lines", "Alt+Shift+S", file -> file.lines().sort());
    add("Wrap long lines on or off", "Alt+Shift+W", FileView::wrapOrNot);
  }

  private void add(String name, String key, Consumer<FileView> run) {
    actions.add(
        new Action(
            name,
            key,
            () -> {
              FileView file = front.get();
              if (file != null) {
                run.accept(file);
              }
            },
            () -> front.get() == null ? "no file is in front" : ""));
  }

  public List<Action> all() {
    return List.copyOf(actions);
  }
}
