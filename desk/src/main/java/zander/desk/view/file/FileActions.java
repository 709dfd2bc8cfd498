package zander.desk.view.file;

import java.util.List;
import java.util.function.Supplier;
import zander.desk.sheet.Action;
import zander.desk.view.part.FrontActions;
import zander.desk.words.Words;

/** What can be done in a file that is open, by name and by key. */
public final class FileActions {
  private static final Words WORDS = Words.of(FileActions.class);

  private final FrontActions<FileView> actions;

  /**
   * @param front gives the file in front, or {@code null} when something else is
   */
  public FileActions(Supplier<FileView> front) {
    actions = new FrontActions<>(front, WORDS.say("noFileIsIn"));
    actions.add(WORDS.say("findInThisFile"), "Ctrl+F", file -> file.find(false));
    actions.add(WORDS.say("replaceInThisFile"), "Ctrl+H", file -> file.find(true));
    actions.add(WORDS.say("nextMatch"), "F3", file -> file.findNext(1));
    actions.add(WORDS.say("previousMatch"), "Shift+F3", file -> file.findNext(-1));
    actions.add(WORDS.say("goToALine"), "Alt+G", file -> file.typed().askForLine());
    actions.add(WORDS.say("showYourChangesTo"), "Alt+V", FileView::showChanges);
    actions.add(WORDS.say("compareWithOtherVersions"), "Alt+Shift+V", FileView::showOtherVersions);
    actions.add(WORDS.say("goToTheOther"), "Alt+Shift+B", file -> file.pairs().goToPartner());
    actions.add(WORDS.say("undoTheChangeAt"), "Alt+Shift+Z", FileView::takeBackChange);
    actions.add(WORDS.say("readInAnotherEncoding"), "", file -> file.typed().askForEncoding());
    actions.add(WORDS.say("colourAsAnotherLanguage"), "", file -> file.typed().askForLanguage());
    actions.add(WORDS.say("changeLineEnds"), "", file -> file.typed().askForLineEnds());
    actions.add(WORDS.say("goToTheNext"), "", FileView::goToHidden);
    actions.add(WORDS.say("insertASnippet"), "Alt+Shift+T", FileView::insertSnippet);
    actions.add(WORDS.say("keepASnippet"), "", FileView::keepSnippet);
    actions.add(WORDS.say("openTheLink"), "Ctrl+Enter", FileView::openLink);
    actions.add(WORDS.say("checksAndCommandsWith"), "", FileView::askForRules);
    actions.add(
        WORDS.say("commentOrUncommentLines"), "Alt+Shift+C", file -> file.lines().comment());
    actions.add(WORDS.say("indentLines"), "", file -> file.lines().indent());
    actions.add(WORDS.say("outdentLines"), "", file -> file.lines().outdent());
    actions.add(WORDS.say("moveLinesUp"), "Alt+Shift+Up", file -> file.lines().move(-1));
    actions.add(WORDS.say("moveLinesDown"), "Alt+Shift+Down", file -> file.lines().move(1));
    actions.add(WORDS.say("duplicateLines"), "Alt+Shift+D", file -> file.lines().duplicate());
    actions.add(WORDS.say("deleteLines"), "Alt+Shift+K", file -> file.lines().delete());
    actions.add(WORDS.say("joinLines"), "Alt+Shift+J", file -> file.lines().join());
    actions.add(WORDS.say("sortLines"), "Alt+Shift+S", file -> file.lines().sort());
    actions.add(WORDS.say("wrapLongLinesOn"), "Alt+Shift+W", FileView::wrapOrNot);
  }

  public List<Action> all() {
    return actions.all();
  }
}
