package zander.desk.sheet;

import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;

/** One thing open on a desk. Used on the interface thread only. */
public abstract class Sheet {
  private final ReadOnlyStringWrapper title = new ReadOnlyStringWrapper("");
  private final ReadOnlyBooleanWrapper unsaved = new ReadOnlyBooleanWrapper(false);
  private final ReadOnlyObjectWrapper<Question> question = new ReadOnlyObjectWrapper<>();

  /** Lets go of what it holds, such as a shell. */
  public void close() {}

  /** Shows a question or a notice in the sheet, in the place of the one before. */
  public final void ask(Question asked) {
    question.set(asked);
  }

  public final void dismissQuestion() {
    question.set(null);
  }

  protected final void setTitle(String words) {
    title.set(words);
  }

  protected final void setUnsaved(boolean now) {
    unsaved.set(now);
  }

  public final boolean isUnsaved() {
    return unsaved.get();
  }

  public final ReadOnlyStringProperty titleProperty() {
    return title.getReadOnlyProperty();
  }

  /** Whether closing it would lose something. */
  public final ReadOnlyBooleanProperty unsavedProperty() {
    return unsaved.getReadOnlyProperty();
  }

  /** What is to be told or decided in it; {@code null} for nothing. */
  public final ReadOnlyObjectProperty<Question> questionProperty() {
    return question.getReadOnlyProperty();
  }
}
