package zander.desk.view.compare;

import java.util.List;
import java.util.function.Supplier;
import zander.desk.sheet.Action;
import zander.desk.view.part.FrontActions;
import zander.desk.words.Words;

/** What can be done where two versions are beside each other, by name and by key. */
public final class CompareActions {
  private static final Words WORDS = Words.of(CompareActions.class);

  private final FrontActions<CompareView> actions;

  /**
   * @param front gives the view in front, or {@code null} when something else is
   */
  public CompareActions(Supplier<CompareView> front) {
    actions = new FrontActions<>(front, WORDS.say("noVersionsAreCompared"));
    actions.add(WORDS.say("nextChange"), "F8", view -> view.go(1));
    actions.add(WORDS.say("previousChange"), "Shift+F8", view -> view.go(-1));
    actions.add(WORDS.say("takeBackThisChange"), "Alt+Shift+Z", CompareView::takeBack);
  }

  public List<Action> all() {
    return actions.all();
  }
}
