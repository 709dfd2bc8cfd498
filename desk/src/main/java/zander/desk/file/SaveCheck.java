package zander.desk.file;

import java.time.Duration;
import java.util.concurrent.Future;
import java.util.function.Consumer;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.change.save.StagedCheck;
import zander.core.work.Cancellation;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.work.Message;

/**
 * The check that goes with the saves of a file: chosen, offered, stopped. Interface thread only.
 */
final class SaveCheck {
  /** What is quicker is not told while it runs. */
  private static final Duration SLOW = Duration.ofMillis(1500);

  private final OpenDesk desk;
  private final EditedFile file;
  private final SavedChecks saved;
  private Future<?> watch;

  SaveCheck(OpenDesk desk, EditedFile file, SavedChecks saved) {
    this.desk = desk;
    this.file = file;
    this.saved = saved;
  }

  private String chosen() {
    return saved.of(desk.address(), file.version().real());
  }

  private void choose(String command) {
    saved.keep(desk.address(), file.version().real(), command.strip());
  }

  /** Gives the check to be run; where a check would fit that nobody chose yet, asks once. */
  void before(Consumer<StagedCheck> save) {
    String command = chosen();
    if (command == null && desk.commands().mayHaveShell()) {
      command = CheckSuggestions.of(file.version().real(), file.text());
      if (!command.isEmpty()) {
        offer(command, save);
        return;
      }
    }
    save.accept(
        command == null || command.isEmpty()
            ? StagedCheck.NONE
            : new StagedCheck(command, new Cancellation()));
  }

  private void offer(String command, Consumer<StagedCheck> save) {
    file.ask(
        Question.notice(
            new Message(
                "Check the new content with each save of " + file.path().name() + "?",
                command
                    + " runs on the server before the new content counts. If it finds a fault,"
                    + " nothing is saved."),
            false,
            answer("Check with each save", command, save),
            answer("Save without a check", "", save),
            new Choice("Keep editing", ticked -> file.dismissQuestion())));
  }

  private Choice answer(String words, String command, Consumer<StagedCheck> save) {
    return new Choice(
        words,
        ticked -> {
          choose(command);
          file.dismissQuestion();
          before(save);
        });
  }

  /** Tells that it runs, if it takes long, and lets the person stop it. */
  void watch(StagedCheck check) {
    if (!check.isNone()) {
      watch = desk.background().later(SLOW, () -> tellOf(check));
    }
  }

  private void tellOf(StagedCheck check) {
    if (watch == null) {
      return;
    }
    file.ask(
        Question.notice(
            new Message("Checking the new content", check.command()),
            false,
            new Choice("Stop and do not save", ticked -> check.stop().stop())));
  }

  /** The save has ended. */
  void over() {
    if (watch != null) {
      watch.cancel(false);
      watch = null;
    }
  }

  /** Asks for the command. */
  void ask() {
    String now = chosen();
    boolean suggests = now == null || now.isEmpty();
    StringProperty command =
        new SimpleStringProperty(
            suggests ? CheckSuggestions.of(file.version().real(), file.text()) : now);
    file.ask(
        Question.asking(
            new Message(
                "Check with each save of " + file.path().name(),
                "Runs on the server before the new content counts; "
                    + StagedCheck.FILE
                    + " stands for the new file. If it ends with another status than 0, nothing is"
                    + " saved."),
            java.util.List.of(
                new Question.Input(
                    "file-check", "Command", command, "visudo -cf " + StagedCheck.FILE)),
            keeping("Check with each save", command::get),
            keeping("No check", () -> ""),
            new Choice("Cancel", ticked -> file.dismissQuestion())));
  }

  private Choice keeping(String words, java.util.function.Supplier<String> command) {
    return new Choice(
        words,
        ticked -> {
          choose(command.get());
          file.dismissQuestion();
        });
  }
}
