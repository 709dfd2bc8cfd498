package zander.desk.edit;

import java.time.Duration;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.List;
import java.util.concurrent.Future;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import org.jspecify.annotations.Nullable;
import zander.core.edit.LineChanges;
import zander.core.edit.LineChanges.Change;
import zander.desk.work.Background;

/**
 * Which lines of a text are not as on the server, known a moment after each change. Interface
 * thread only.
 */
public final class ChangedLines {
  private static final Duration PAUSE = Duration.ofMillis(250);

  private final Background background;
  private final EditedText text;
  private final ReadOnlyObjectWrapper<Marks> marks = new ReadOnlyObjectWrapper<>(Marks.NONE);
  private @Nullable Future<?> due;
  private long number;

  /**
   * @param lines those of the text that were changed or added, from 0
   * @param gone those before which lines of the server are missing
   */
  public record Marks(BitSet lines, BitSet gone) {
    static final Marks NONE = new Marks(new BitSet(), new BitSet());
  }

  public ChangedLines(Background background, EditedText text) {
    this.background = background;
    this.text = text;
  }

  /** The text was changed, or saved. */
  public void lookSoon() {
    if (due != null) {
      due.cancel(false);
    }
    due = background.later(PAUSE, this::look);
  }

  private void look() {
    due = null;
    long mine = ++number;
    if (!text.isUnsaved()) {
      marks.set(Marks.NONE);
      return;
    }
    String was = text.saved();
    String now = text.text();
    background.run(
        () -> marks(between(was, now)),
        made -> {
          if (mine == number) {
            marks.set(made);
          }
        },
        failure -> {});
  }

  private static Marks marks(List<Change> changes) {
    BitSet lines = new BitSet();
    BitSet gone = new BitSet();
    for (Change change : changes) {
      if (change.nowFrom() == change.nowTo()) {
        gone.set(change.nowFrom());
      } else {
        lines.set(change.nowFrom(), change.nowTo());
      }
    }
    return new Marks(lines, gone);
  }

  /** Gives the text without the change that touches a line, counted from 0, if one does. */
  public void withoutChangeAt(int line, Consumer<String> then) {
    String was = text.saved();
    String now = text.text();
    background.run(
        () -> without(was, now, line),
        made -> {
          if (made != null && text.text().equals(now)) {
            then.accept(made);
          }
        },
        failure -> {});
  }

  private static @Nullable String without(String was, String now, int line) {
    for (Change change : between(was, now)) {
      boolean within = change.nowFrom() <= line && line < change.nowTo();
      if (within || (change.nowFrom() == change.nowTo() && change.nowFrom() == line)) {
        List<String> lines = new ArrayList<>(LineChanges.lines(now));
        List<String> part = lines.subList(change.nowFrom(), change.nowTo());
        part.clear();
        part.addAll(LineChanges.lines(was).subList(change.from(), change.to()));
        return String.join("\n", lines);
      }
    }
    return null;
  }

  /** The changes from one text to another, line by line. */
  static List<Change> between(String was, String now) {
    return LineChanges.between(LineChanges.lines(was), LineChanges.lines(now));
  }

  public ReadOnlyObjectProperty<Marks> marksProperty() {
    return marks.getReadOnlyProperty();
  }
}
