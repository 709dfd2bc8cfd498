package zander.desk.save;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import javafx.beans.binding.Bindings;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import zander.core.change.save.StagedCheck;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.sheet.Question.Input;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** What goes with the saves of a file: offered and chosen. Interface thread only. */
final class RulesQuestions {
  private static final Words WORDS = Words.of(RulesQuestions.class);

  private final OpenDesk desk;
  private final EditedFile file;
  private final KeptSaveRules kept;

  RulesQuestions(OpenDesk desk, EditedFile file, KeptSaveRules kept) {
    this.desk = desk;
    this.file = file;
    this.kept = kept;
  }

  private @Nullable SaveRules chosen() {
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
                WORDS.say("doThisWithEach", file.path().name()), String.join("\n", told(rules))),
            false,
            answer(WORDS.say("withEachSave"), rules, save),
            answer(WORDS.say("saveWithoutIt"), SaveRules.NONE, save),
            new Choice(WORDS.say("change"), ticked -> ask(rules)),
            new Choice(WORDS.say("keepEditing"), ticked -> file.dismissQuestion())));
  }

  private static List<String> told(SaveRules rules) {
    List<String> lines = new ArrayList<>();
    if (!rules.check().isEmpty()) {
      lines.add(WORDS.say("checksTheNewContent", rules.check()));
    }
    if (!rules.after().isEmpty()) {
      lines.add(WORDS.say("checksItWhenIt", rules.after()));
    }
    if (!rules.effect().isEmpty()) {
      lines.add(
          rules.effect()
              + (rules.asks() && !rules.isGuarded()
                  ? WORDS.say("thenMakesItTake")
                  : WORDS.say("thenMakesItTakeEffect")));
    }
    if (rules.isGuarded()) {
      lines.add(WORDS.say("aNewSignIn", Texts.timeLeft(rules.seconds())));
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
    StringProperty seconds =
        new SimpleStringProperty(now.isGuarded() ? WORDS.say("s", now.seconds()) : "");
    Question question =
        Question.asking(
            new Message(
                WORDS.say("withEachSaveOf", file.path().name()),
                WORDS.say("commandsRunOnThe", StagedCheck.FILE)),
            List.of(
                new Input(
                    "rules-check",
                    WORDS.say("checkBeforeItCounts"),
                    check,
                    "visudo -cf " + StagedCheck.FILE),
                new Input("rules-after", WORDS.say("checkWhenSavedElse"), after, "nginx -t"),
                new Input("rules-effect", WORDS.say("thenRun"), effect, "systemctl reload nginx"),
                new Input(
                    "rules-seconds", WORDS.say("putBackUnlessI"), seconds, WORDS.say("timeHint"))),
            new Choice(
                WORDS.say("keep"),
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
            new Choice(WORDS.say("cancel"), ticked -> file.dismissQuestion()));
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
