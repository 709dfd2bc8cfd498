package zander.desk.folder.action;

import java.io.UncheckedIOException;
import java.time.Duration;
import java.util.concurrent.CancellationException;
import java.util.concurrent.Future;
import java.util.function.Consumer;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import zander.core.work.Cancellation;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.Question;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** Work started from a folder sheet: told in a strip while it runs, and stopped there. */
public final class FolderTask {
  private static final Words WORDS = Words.of(FolderTask.class);

  private static final Duration LONG = Duration.ofSeconds(1);

  private final FolderModel folder;
  private final String headline;
  private final StringProperty live = new SimpleStringProperty("");
  private final Cancellation stop = new Cancellation();
  private @Nullable Question shown;
  private boolean over;
  private @Nullable Consumer<FolderModel> again;

  public FolderTask(FolderModel folder, String headline) {
    this.folder = folder;
    this.headline = headline;
  }

  /** What is to be done as root, where the account was refused and root may be acted as. */
  FolderTask orAsRoot(Consumer<FolderModel> step) {
    again = step;
    return this;
  }

  public interface Work<T> {
    T run(FolderTask task) throws Exception;
  }

  /** Tells how far it is, from any thread. */
  public void tell(String words) {
    folder.desk().background().show(() -> live.set(words));
  }

  public Cancellation stop() {
    return stop;
  }

  /** Runs it; a failure is told in the sheet, and so is that it was stopped. */
  public <T> void run(Work<T> work, Consumer<T> done) {
    Question asked = notice();
    shown = asked;
    folder.ask(asked);
    folder
        .desk()
        .background()
        .run(
            () -> work.run(this),
            result -> {
              end();
              done.accept(result);
            },
            failure -> {
              end();
              if (failure instanceof CancellationException) {
                folder.ask(
                    Question.notice(
                        new Message(WORDS.say("stopped", headline), WORDS.say("whatHadBeenDone")),
                        false,
                        folder.dismiss()));
                folder.refresh();
              } else {
                tellFailure(failure);
                folder.desk().checkLine();
              }
            });
  }

  private void tellFailure(Throwable failure) {
    // What streams threw is what they wrap.
    Throwable why =
        failure instanceof UncheckedIOException ? FailureWords.within(failure) : failure;
    if (again == null) {
      folder.tellFailure(FailureWords.of(why));
    } else {
      folder.tellFailure(why, folder.desk(), AsRoot.goOn(folder, again));
    }
  }

  /** The same for what nobody asked for: told only when it takes long; a failure is not told. */
  void runQuietly(Work<?> work) {
    runQuietly(work, result -> {}, failure -> {});
  }

  /** The same where something follows, whatever came of it. */
  public <T> void runQuietly(Work<T> work, Consumer<T> done, Consumer<Throwable> failed) {
    shown = notice();
    Future<?> telling = folder.desk().background().later(LONG, this::tellUnlessOver);
    Runnable end =
        () -> {
          telling.cancel(false);
          over = true;
          end();
        };
    folder
        .desk()
        .background()
        .run(
            () -> work.run(this),
            result -> {
              end.run();
              done.accept(result);
            },
            failure -> {
              end.run();
              failed.accept(failure);
            });
  }

  private void tellUnlessOver() {
    if (!over && shown != null) {
      folder.ask(shown);
    }
  }

  private Question notice() {
    return Question.notice(
            new Message(headline, ""),
            false,
            new Question.Choice(WORDS.say("stop"), ticked -> stop.stop()))
        .live(live);
  }

  private void end() {
    if (shown != null) {
      folder.dismiss(shown);
    }
  }
}
