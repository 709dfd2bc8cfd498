package zander.desk.view.file;

import java.util.List;
import java.util.function.Supplier;
import zander.desk.sheet.Action;
import zander.desk.view.part.FrontActions;
import zander.desk.words.Words;

/** What can be done in a file that is open to read, by name and by key. */
public final class ReadingActions {
  private static final Words WORDS = Words.of(ReadingActions.class);

  private final FrontActions<ReadingView> actions;

  /**
   * @param front gives the one in front, or {@code null} when something else is
   */
  public ReadingActions(Supplier<ReadingView> front) {
    actions = new FrontActions<>(front, WORDS.say("noFileIsOpen"));
    actions.add(WORDS.say("findWhileReading"), "Ctrl+F", ReadingView::find);
    actions.add(WORDS.say("nextLineFound"), "F3", view -> view.find(true));
    actions.add(WORDS.say("previousLineFound"), "Shift+F3", view -> view.find(false));
    actions.add(WORDS.say("goToALine"), "Alt+G", ReadingView::askForPlace);
    actions.add(WORDS.say("showOnlySomeLines"), "Ctrl+K", ReadingView::openFilter);
    actions.add(WORDS.say("pauseOrFollow"), "Alt+Shift+P", ReadingView::pause);
    actions.add(WORDS.say("wrapLongLinesWhile"), "Alt+Shift+W", ReadingView::wrapOrNot);
  }

  public List<Action> all() {
    return actions.all();
  }
}
