package zander.desk.save;

import java.time.Duration;
import java.util.concurrent.Future;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import org.jspecify.annotations.Nullable;
import zander.core.change.effect.EffectCommand.Effect;
import zander.core.change.effect.ReturnGuard;
import zander.core.files.RemoteFiles;
import zander.desk.save.EffectSteps.Change;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * A change that is kept only when a new sign-in works: the count-down until the server takes it
 * back, the sign-in, and what a person may do meanwhile. Interface thread only.
 */
final class GuardSteps {
  private static final Words WORDS = Words.of(GuardSteps.class);

  private static final Duration TICK = Duration.ofMillis(500);

  private final OpenDesk desk;
  private final EditedFile file;
  private final EffectSteps effects;
  private @Nullable Waiting waiting;
  private boolean closed;

  GuardSteps(OpenDesk desk, EditedFile file, EffectSteps effects) {
    this.desk = desk;
    this.file = file;
    this.effects = effects;
  }

  /** Whether it is not settled yet. */
  boolean isWaiting() {
    return waiting != null;
  }

  void closed() {
    closed = true;
    if (waiting != null) {
      waiting.clock.cancel(false);
    }
  }

  void begin(Change change, ReturnGuard guard) {
    waiting = new Waiting(change, guard);
    if (change.command().isEmpty()) {
      waiting.signIn();
      return;
    }
    effects.run(change, waiting);
  }

  /** One guard that is not settled. */
  private final class Waiting implements EffectSteps.Outcome {
    private final Change change;
    private final ReturnGuard guard;
    private final StringProperty left = new SimpleStringProperty("");
    private final Future<?> clock;
    private boolean settling;

    Waiting(Change change, ReturnGuard guard) {
      this.change = change;
      this.guard = guard;
      this.clock = desk.background().every(TICK, () -> desk.background().show(this::tick));
      tick();
    }

    private void tick() {
      Duration now = guard.left();
      left.set(
          now.isZero()
              ? WORDS.say("theServerIsPutting")
              : WORDS.say("theServerPutsThe", now.toSeconds()));
      if (now.isZero() && !settling) {
        settle(WORDS.say("takingItBack"), guard::awaitEnd, ended -> returned());
      }
    }

    @Override
    public void worked(Effect effect) {
      // It may have taken longer than the server waited.
      if (waiting == this) {
        signIn();
      }
    }

    @Override
    public void failed(Message said) {
      if (waiting == this) {
        ask(said, true, new Choice(WORDS.say("signInAnewAll"), ticked -> signIn()));
      }
    }

    private void signIn() {
      file.say(WORDS.say("savedKeptIf"));
      ask(new Message(WORDS.say("signingInAnewTo"), WORDS.say("ifItWorksThe")), false);
      desk.signInAnew(
          line -> {
            if (waiting != this || settling) {
              desk.background().run(line.close());
              return;
            }
            settling = true;
            desk.background()
                .run(
                    () -> {
                      try {
                        return guard.keep(line.connection().files());
                      } finally {
                        line.close().run();
                      }
                    },
                    kept -> {
                      settling = false;
                      keptOrNot(kept, WORDS.say("keptANewSign"));
                    },
                    this::notSettled);
          },
          failure -> {
            if (waiting == this && !settling) {
              Message why = FailureWords.of(failure);
              ask(
                  new Message(WORDS.say("aNewSignIn"), why.headline() + ". " + why.detail()),
                  true,
                  new Choice(WORDS.say("tryAgain"), ticked -> signIn()));
            }
          });
    }

    private void ask(Message said, boolean danger, Choice... first) {
      if (closed) {
        return;
      }
      Choice back = new Choice(WORDS.say("putItBackNow"), ticked -> takeBack());
      Choice keep =
          new Choice(
              WORDS.say("keepItWithoutA"),
              ticked ->
                  settle(
                      WORDS.say("keepingIt"),
                      guard::keep,
                      kept -> keptOrNot(kept, WORDS.say("keptAsYouSaid"))));
      Question question =
          first.length == 0
              ? Question.notice(said, danger, keep, back)
              : Question.notice(said, danger, first[0], keep, back);
      file.ask(question.live(left));
    }

    private void takeBack() {
      settle(WORDS.say("puttingItBack"), guard::takeBack, done -> returned());
    }

    private void settle(String state, Asked how, java.util.function.Consumer<Boolean> then) {
      if (settling) {
        return;
      }
      settling = true;
      file.say(state);
      RemoteFiles files = desk.files();
      desk.background()
          .run(
              () -> how.ask(files),
              done -> {
                settling = false;
                then.accept(done);
              },
              this::notSettled);
    }

    private void keptOrNot(boolean kept, String state) {
      if (!kept) {
        returned();
        return;
      }
      over();
      file.say(WORDS.say("savedToTheServer", state));
    }

    /** The server has had its time: what it has now is read, whatever was to be. */
    private void returned() {
      over();
      file.rebase(
          theirs -> {
            boolean stands =
                theirs.version().digestText().equals(change.made().version().digestText());
            if (stands) {
              ask(WORDS.say("theServerDidNot"), WORDS.say("itStillHasThe", file.path().name()));
            } else {
              desk.background()
                  .run(
                      () -> {
                        ReturnGuard.note(
                            desk.journal(), change.made(), change.content(), theirs.version());
                        return null;
                      },
                      done -> desk.changed(java.util.List.of(change.path())),
                      failure -> {});
              file.say(WORDS.say("putBackNotSaved"));
              ask(WORDS.say("theServerHasTaken"), WORDS.say("isAsItWas", file.path().name()));
            }
          });
    }

    private void ask(String headline, String detail) {
      file.ask(
          Question.notice(
              new Message(headline, detail),
              true,
              new Choice(WORDS.say("keepEditing"), ticked -> file.dismissQuestion())));
    }

    private void notSettled(Throwable failure) {
      settling = false;
      desk.checkLine();
      if (!guard.left().isZero()) {
        Message why = FailureWords.of(failure);
        ask(why, true, new Choice(WORDS.say("signInAnew"), ticked -> signIn()));
        return;
      }
      over();
      file.say(WORDS.say("notKnownWhatTheServerHas"));
      ask(WORDS.say("whetherTheServerHas"), WORDS.say("theLineIsAway"));
    }

    private void over() {
      clock.cancel(false);
      waiting = null;
      file.dismissQuestion();
    }
  }

  private interface Asked {
    boolean ask(RemoteFiles files) throws java.io.IOException;
  }
}
