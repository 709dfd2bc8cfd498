package zander.desk.transfer;

import java.util.concurrent.CancellationException;
import java.util.function.Consumer;
import javafx.beans.property.ReadOnlyBooleanProperty;
import javafx.beans.property.ReadOnlyBooleanWrapper;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import zander.core.work.Cancellation;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;

/**
 * A look at both sides for a sheet: begun, begun anew, and stopped; what it has found so far is
 * shown as it comes. Interface thread only.
 */
final class BackgroundScan<T> {
  private static final Words WORDS = Words.of(BackgroundScan.class);

  private final OpenDesk desk;
  private final Sheet sheet;
  private final ReadOnlyBooleanWrapper running = new ReadOnlyBooleanWrapper();
  private final ReadOnlyObjectWrapper<T> found = new ReadOnlyObjectWrapper<>();
  private Cancellation now = new Cancellation();

  BackgroundScan(OpenDesk desk, Sheet sheet) {
    this.desk = desk;
    this.sheet = sheet;
  }

  interface Work<T> {
    T run(Cancellation stop, Consumer<T> soFar) throws Exception;
  }

  /** Begins one; what an earlier one still finds is not shown any more. */
  void begin(Work<T> work) {
    now.stop();
    Cancellation mine = new Cancellation();
    now = mine;
    running.set(true);
    desk.background()
        .run(
            () -> work.run(mine, soFar -> desk.background().show(() -> take(mine, soFar, true))),
            all -> take(mine, all, false),
            failure -> {
              if (now == mine) {
                running.set(false);
                tell(failure);
              }
            });
  }

  private void take(Cancellation mine, T result, boolean more) {
    if (now == mine) {
      running.set(more);
      found.set(result);
    }
  }

  private void tell(Throwable failure) {
    if (!(failure instanceof CancellationException)) {
      sheet.ask(
          Question.notice(
              FailureWords.of(failure),
              true,
              new Question.Choice(WORDS.say("close"), ticked -> sheet.dismissQuestion())));
      desk.checkLine();
    }
  }

  void stop() {
    now.stop();
  }

  ReadOnlyBooleanProperty runningProperty() {
    return running.getReadOnlyProperty();
  }

  /** What was found, so far or in the end; {@code null} at first. */
  ReadOnlyObjectProperty<T> foundProperty() {
    return found.getReadOnlyProperty();
  }
}
