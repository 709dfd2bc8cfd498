package zander.desk.save;

import java.util.List;
import java.util.concurrent.Future;
import org.jspecify.annotations.Nullable;
import zander.core.change.effect.EffectCommand.Effect;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.AtomicSave.Allow;
import zander.core.change.save.NotPutBack;
import zander.core.connect.command.Commands;
import zander.core.files.RemotePath;
import zander.core.work.Cancellation;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** How a saved change takes effect, and goes back where it does not. Interface thread only. */
final class EffectSteps {
  private static final Words WORDS = Words.of(EffectSteps.class);

  private static final int MOST_LINES = 8;

  private final OpenDesk desk;
  private final EditedFile file;
  private final RulesQuestions rules;

  EffectSteps(OpenDesk desk, EditedFile file, RulesQuestions rules) {
    this.desk = desk;
    this.file = file;
    this.rules = rules;
  }

  /**
   * A save that was made, and how.
   *
   * @param content what was saved
   */
  record Change(
      AtomicSave.Saved made,
      byte[] content,
      AtomicSave saver,
      List<Allow> allowed,
      SaveRules rules) {
    RemotePath path() {
      return made.version().real();
    }

    String command() {
      return rules.effect();
    }
  }

  /** What becomes of a command. */
  interface Outcome {
    void worked(Effect effect);

    void failed(Message said);
  }

  /**
   * @param state how the save went, in a few words
   */
  void after(Change change, String state) {
    if (!change.rules.asks()) {
      run(change, state);
      return;
    }
    file.ask(
        Question.notice(
            new Message(
                WORDS.say("isSavedRunNow", file.path().name(), change.command()),
                WORDS.say("whatIsRunningOn")),
            false,
            new Choice(WORDS.say("runIt"), ticked -> run(change, state)),
            new Choice(
                WORDS.say("runItWithEach"),
                ticked -> {
                  rules.choose(change.rules.withoutAsking(true));
                  run(change, state);
                }),
            new Choice(WORDS.say("notNow"), ticked -> file.dismissQuestion())));
  }

  private void run(Change change, String state) {
    run(
        change,
        new Outcome() {
          @Override
          public void worked(Effect effect) {
            file.say(WORDS.say("stateAnd", state, saidOf(change, effect)));
          }

          @Override
          public void failed(Message said) {
            file.ask(
                Question.notice(
                    said,
                    true,
                    new Choice(WORDS.say("putTheVersionBefore"), ticked -> goBack(change)),
                    new Choice(WORDS.say("runItAgain"), ticked -> run(change, state)),
                    new Choice(WORDS.say("keepTheNewVersion"), ticked -> file.dismissQuestion())));
          }
        });
  }

  static String saidOf(Change change, Effect effect) {
    return effect.state().isEmpty()
        ? WORDS.say("worked", change.command())
        : WORDS.say("is", effect.unit(), effect.state());
  }

  /** Runs the command of a change; the text can be edited meanwhile. */
  void run(Change change, Outcome outcome) {
    file.dismissQuestion();
    file.say(WORDS.say("running", change.command()));
    Running running = new Running(change);
    Commands commands = desk.commands();
    desk.background()
        .run(
            () -> change.rules.effectCommand().run(commands, change.path(), running.stop),
            effect -> {
              running.over();
              if (effect.worked()) {
                outcome.worked(effect);
              } else {
                outcome.failed(refused(change, effect));
              }
            },
            failure -> {
              running.over();
              desk.checkLine();
              outcome.failed(
                  new Message(
                      WORDS.say("itIsNotKnown", change.command()),
                      WORDS.say(
                          "theServerHasThe",
                          FailureWords.of(failure).headline(),
                          file.path().name())));
            });
  }

  /** A command that runs: told if it takes long, and then nobody need wait for it. */
  private final class Running {
    private final Cancellation stop = new Cancellation();
    private final Future<?> watch;
    private boolean isOver;
    private boolean isTold;

    Running(Change change) {
      watch = desk.background().later(SaveFlow.SLOW, () -> tell(change));
    }

    private void tell(Change change) {
      if (!isOver && file.isFree()) {
        isTold = true;
        file.ask(
            Question.notice(
                new Message(WORDS.say("runningOnTheServer"), change.command()),
                false,
                new Choice(WORDS.say("stopWaiting"), ticked -> stop.stop())));
      }
    }

    void over() {
      isOver = true;
      watch.cancel(false);
      if (isTold) {
        file.dismissQuestion();
      }
    }
  }

  private Message refused(Change change, Effect effect) {
    List<String> lines =
        effect.said().lines().filter(line -> !line.isBlank()).limit(MOST_LINES).toList();
    String headline =
        effect.state().isEmpty()
            ? WORDS.say("didNotWork", change.command())
            : WORDS.say("isAfter", effect.unit(), effect.state(), change.command());
    return new Message(
        headline,
        WORDS.say(
            "theServerHasTheNew",
            String.join("\n", lines) + (lines.isEmpty() ? "" : "\n"),
            file.path().name()));
  }

  /** Puts the version before back, and has it take effect. */
  private void goBack(Change change) {
    file.dismissQuestion();
    file.setBusy(true);
    file.say(WORDS.say("puttingItBack"));
    Commands commands = desk.commands();
    desk.background()
        .run(
            () -> {
              change.saver.putBack(change.made, change.allowed);
              return change.command().isEmpty()
                  ? new Effect(true, "", "", "")
                  : change.rules.effectCommand().run(commands, change.path(), new Cancellation());
            },
            effect -> {
              file.setBusy(false);
              wentBack(effect.worked() ? null : refused(change, effect));
            },
            failure -> {
              file.setBusy(false);
              desk.checkLine();
              wentBack(FailureWords.of(failure));
            });
  }

  /**
   * The text here stays; what the server has is read again.
   *
   * @param wrong what did not work; {@code null} for nothing
   */
  private void wentBack(@Nullable Message wrong) {
    file.rebase(
        theirs -> {
          file.say(WORDS.say("putBackNotSaved"));
          if (wrong != null) {
            file.ask(
                Question.notice(
                    wrong,
                    true,
                    new Choice(WORDS.say("keepEditing"), ticked -> file.dismissQuestion())));
          }
        });
  }

  /** What should have checked it did not take it, and it stands all the same. */
  void notPutBack(Change change, NotPutBack stands) {
    Message why = FailureWords.of(stands);
    file.say(WORDS.say("notChecked"));
    file.ask(
        Question.notice(
            why,
            true,
            new Choice(WORDS.say("putTheVersionBefore"), ticked -> goBack(change)),
            new Choice(WORDS.say("keepTheNewVersion"), ticked -> file.dismissQuestion())));
  }
}
