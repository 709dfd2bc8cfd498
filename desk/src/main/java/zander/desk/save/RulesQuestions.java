package zander.desk.save;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.beans.binding.Bindings;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.change.save.StagedCheck;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.sheet.Question.Input;
import zander.desk.sheet.Texts;
import zander.desk.work.Message;

/** What goes with the saves of a file: offered and chosen. Interface thread only. */
final class RulesQuestions {
  private final OpenDesk desk;
  private final EditedFile file;
  private final KeptSaveRules kept;

  RulesQuestions(OpenDesk desk, EditedFile file, KeptSaveRules kept) {
    this.desk = desk;
    this.file = file;
    this.kept = kept;
  }

  private SaveRules chosen() {
    return kept.of(desk.address(), file.version().real());
  }

  void choose(SaveRules rules) {
    kept.keep(desk.address(), file.version().real(), rules);
  }

  /** Gives the rules to be saved by; where some would fit that nobody chose yet, asks once. */
  void before(Consumer<SaveRules> save) {
    SaveRules rules = chosen();
    if (rules == null && desk.commands().mayHaveShell()) {
      rules = SuggestedRules.of(file.version().real(), file.text());
      if (!rules.isNone()) {
        offer(rules, save);
        return;
      }
    }
    save.accept(rules == null ? SaveRules.NONE : rules);
  }

  private void offer(SaveRules rules, Consumer<SaveRules> save) {
    file.ask(
        Question.notice(
            new Message(
                "Do this with each save of " + file.path().name() + "?",
                String.join("\n", told(rules))),
            false,
            answer("With each save", rules, save),
            answer("Save without it", SaveRules.NONE, save),
            new Choice("Change …", ticked -> ask(rules)),
            new Choice("Keep editing", ticked -> file.dismissQuestion())));
  }

  private static List<String> told(SaveRules rules) {
    List<String> lines = new ArrayList<>();
    if (!rules.check().isEmpty()) {
      lines.add(
          rules.check()
              + " checks the new content before it counts. If it finds a fault, nothing is saved.");
    }
    if (!rules.after().isEmpty()) {
      lines.add(
          rules.after()
              + " checks it when it is saved. If it finds a fault, the version before is put back.");
    }
    if (!rules.effect().isEmpty()) {
      lines.add(
          rules.effect()
              + (rules.asks() && !rules.isGuarded()
                  ? " then makes it take effect. You are asked each time."
                  : " then makes it take effect."));
    }
    if (rules.isGuarded()) {
      lines.add(
          "A new sign-in then shows that you still get in. If it does not work within "
              + Texts.timeLeft(rules.seconds())
              + ", the server puts the version before back by itself.");
    }
    return lines;
  }

  private Choice answer(String words, SaveRules rules, Consumer<SaveRules> save) {
    return new Choice(
        words,
        ticked -> {
          choose(rules);
          file.dismissQuestion();
          save.accept(rules);
        });
  }

  /** Asks for all of it. */
  void ask() {
    SaveRules now = chosen();
    ask(now == null || now.isNone() ? SuggestedRules.of(file.version().real(), file.text()) : now);
  }

  private void ask(SaveRules now) {
    StringProperty check = new SimpleStringProperty(now.check());
    StringProperty after = new SimpleStringProperty(now.after());
    StringProperty effect = new SimpleStringProperty(now.effect());
    StringProperty seconds = new SimpleStringProperty(now.isGuarded() ? now.seconds() + " s" : "");
    Question question =
        Question.asking(
            new Message(
                "With each save of " + file.path().name(),
                "Commands run on the server; "
                    + StagedCheck.FILE
                    + " stands for the file. Leave a field empty to do without. The time is 10 to"
                    + " 3600 s."),
            List.of(
                new Input(
                    "rules-check",
                    "Check before it counts",
                    check,
                    "visudo -cf " + StagedCheck.FILE),
                new Input("rules-after", "Check when saved, else put back", after, "nginx -t"),
                new Input("rules-effect", "Then run", effect, "systemctl reload nginx"),
                new Input(
                    "rules-seconds", "Put back unless I can sign in within", seconds, "120 s")),
            new Choice(
                "Keep",
                ticked -> {
                  boolean asks = now.asks() || !now.effect().equals(effect.get().strip());
                  choose(
                      new SaveRules(
                          check.get().strip(),
                          after.get().strip(),
                          effect.get().strip(),
                          asks,
                          secondsOf(seconds.get())));
                  file.dismissQuestion();
                }),
            new Choice("Cancel", ticked -> file.dismissQuestion()));
    file.ask(
        question.readyWhen(
            Bindings.createBooleanBinding(() -> secondsOf(seconds.get()) >= 0, seconds)));
  }

  /** -1 for what is no time. */
  private static int secondsOf(String typed) {
    String words = typed.replaceFirst("s\\s*$", "").strip();
    if (words.isEmpty()) {
      return 0;
    }
    int seconds = words.matches("[0-9]{1,4}") ? Integer.parseInt(words) : -1;
    return seconds >= SaveRules.LEAST_SECONDS && seconds <= SaveRules.MOST_SECONDS ? seconds : -1;
  }
}
