package zander.desk.view.part;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.function.Supplier;
import zander.desk.sheet.Action;

/** Actions of one kind of view, which are done in the one in front. */
public final class FrontActions<V> {
  private final Supplier<V> front;
  private final String whyNot;
  private final List<Action> actions = new ArrayList<>();

  /**
   * @param front gives the one in front, or {@code null} when something else is
   * @param whyNot why none can be done then, in a few words
   */
  public FrontActions(Supplier<V> front, String whyNot) {
    this.front = front;
    this.whyNot = whyNot;
  }

  /**
   * @param key as in {@link Action}
   */
  public void add(String name, String key, Consumer<V> run) {
    add(
        new Action(
            name,
            key,
            () -> {
              V view = front.get();
              if (view != null) {
                run.accept(view);
              }
            },
            () -> front.get() == null ? whyNot : ""));
  }

  /** One that is done elsewhere. */
  public void add(Action action) {
    actions.add(action);
  }

  public List<Action> all() {
    return List.copyOf(actions);
  }
}
