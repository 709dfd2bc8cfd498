package zander.desk.sheet;

import java.util.ArrayList;
import java.util.List;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import org.jspecify.annotations.Nullable;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** One thing open on a desk. Used on the interface thread only. */
public abstract class Sheet {
  private static final Words WORDS = Words.of(Sheet.class);

  private final ReadOnlyStringWrapper title = new ReadOnlyStringWrapper("");
  private final ReadOnlyBooleanWrapper unsaved = new ReadOnlyBooleanWrapper(false);
  private final ReadOnlyObjectWrapper<Question> question = new ReadOnlyObjectWrapper<>();

  /** Lets go of what it holds, such as a shell. */
  public void close() {}

  /** The person closed it: what is kept for the next time goes as well. */
  protected void discard() {}

  /**
   * Asks in itself what is to become of what is unsaved.
   *
   * @param close to be run when it may be closed
   */
  protected void askBeforeClosing(Runnable close) {
    close.run();
  }

  /** Questions of others that wait here for their answer; the first is shown. */
  private final List<Question> pinned = new ArrayList<>();

  private @Nullable Question own;

  /** Shows a question or a notice in the sheet, in the place of the one before. */
  public final void ask(Question asked) {
    own = asked;
    showFirst();
  }

  public final void dismissQuestion() {
    own = null;
    showFirst();
  }

  /** Tells something until the person closes it. */
  public final void tell(Message said) {
    ask(Question.notice(said, false, dismiss()));
  }

  /** The same for a failure or a loss. */
  public final void tellFailure(Message said) {
    ask(Question.notice(said, true, dismiss()));
  }

  /**
   * The same for something that failed, with the offer to do it as root where that may help.
   *
   * @param asRoot does it as root
   */
  public final void tellFailure(Throwable failure, OpenDesk desk, Runnable asRoot) {
    tellFailure(failure, FailureWords.of(failure), desk, asRoot);
  }

  /** The same in words of one's own. */
  public final void tellFailure(Throwable failure, Message said, OpenDesk desk, Runnable asRoot) {
    if (desk.mayRootHelp(failure)) {
      tellFailureOrAsRoot(said, asRoot);
    } else {
      tellFailure(said);
    }
  }

  /** The same where it is known that root may help. */
  public final void tellFailureOrAsRoot(Message said, Runnable asRoot) {
    Question.Choice choice =
        new Question.Choice(
            WORDS.say("doItAsRoot"),
            ticked -> {
              dismissQuestion();
              asRoot.run();
            });
    ask(Question.notice(said, true, choice, dismiss()));
  }

  /** The answer to what is only told. */
  public final Question.Choice dismiss() {
    return new Question.Choice(WORDS.say("close"), ticked -> dismissQuestion());
  }

  /** The same if it is still this one. */
  public final void dismiss(Question asked) {
    if (own == asked) {
      dismissQuestion();
    }
  }

  /**
   * Shows a question that something waits for, until {@link #unpin}: no notice covers it, going
   * elsewhere does not dismiss it, and several wait for each other.
   */
  public final void pin(Question asked) {
    pinned.add(asked);
    showFirst();
  }

  public final void unpin(Question asked) {
    pinned.remove(asked);
    showFirst();
  }

  /** Those that wait here, in the order in which they were asked. */
  public final List<Question> pinned() {
    return List.copyOf(pinned);
  }

  private void showFirst() {
    question.set(pinned.isEmpty() ? own : pinned.get(0));
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
