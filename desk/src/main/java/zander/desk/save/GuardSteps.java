package zander.desk.save;

import java.time.Duration;
import java.util.concurrent.Future;
import javafx.beans.property.SimpleStringProperty;
import javafx.beans.property.StringProperty;
import zander.core.change.effect.EffectCommand.Effect;
import zander.core.change.effect.ReturnGuard;
import zander.core.files.RemoteFiles;
import zander.desk.save.EffectSteps.Change;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * A change that is kept only when a new sign-in works: the count-down until the server takes it
 * back, the sign-in, and what a person may do meanwhile. Interface thread only.
 */
final class GuardSteps {
  private static final Duration TICK = Duration.ofMillis(500);

  private final OpenDesk desk;
  private final EditedFile file;
  private final EffectSteps effects;
  private Waiting waiting;
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
              ? "The server is putting the version before back."
              : "The server puts the version before back in " + now.toSeconds() + " s.");
      if (now.isZero() && !settling) {
        settle("taking it back", guard::awaitEnd, ended -> returned());
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
        ask(said, true, new Choice("Sign in anew all the same", ticked -> signIn()));
      }
    }

    private void signIn() {
      file.say("saved; kept if a new sign-in works");
      ask(
          new Message(
              "Signing in anew, to see that you still get in",
              "If it works, the change is kept."
                  + " If not, the server takes it back by itself, also when Zander is gone."),
          false);
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
                      keptOrNot(kept, "kept: a new sign-in works");
                    },
                    this::notSettled);
          },
          failure -> {
            if (waiting == this && !settling) {
              Message why = FailureWords.of(failure);
              ask(
                  new Message("A new sign-in did not work", why.headline() + ". " + why.detail()),
                  true,
                  new Choice("Try again", ticked -> signIn()));
            }
          });
    }

    private void ask(Message said, boolean danger, Choice... first) {
      if (closed) {
        return;
      }
      Choice back = new Choice("Put it back now", ticked -> takeBack());
      Choice keep =
          new Choice(
              "Keep it without a new sign-in",
              ticked ->
                  settle("keeping it", guard::keep, kept -> keptOrNot(kept, "kept as you said")));
      Question question =
          first.length == 0
              ? Question.notice(said, danger, keep, back)
              : Question.notice(said, danger, first[0], keep, back);
      file.ask(question.live(left));
    }

    private void takeBack() {
      settle("putting it back", guard::takeBack, done -> returned());
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
      file.say("saved to the server, " + state);
    }

    /** The server has had its time: what it has now is read, whatever was to be. */
    private void returned() {
      over();
      file.rebase(
          theirs -> {
            boolean stands =
                theirs.version().digestText().equals(change.made().version().digestText());
            if (stands) {
              ask(
                  "The server did not take the change back",
                  "It still has the new version of " + file.path().name() + ".");
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
              file.say("put back; your text is not saved");
              ask(
                  "The server has taken the change back",
                  file.path().name()
                      + " is as it was before on the server. Your text is here, not saved.");
            }
          });
    }

    private void ask(String headline, String detail) {
      file.ask(
          Question.notice(
              new Message(headline, detail),
              true,
              new Choice("Keep editing", ticked -> file.dismissQuestion())));
    }

    private void notSettled(Throwable failure) {
      settling = false;
      desk.checkLine();
      if (!guard.left().isZero()) {
        Message why = FailureWords.of(failure);
        ask(why, true, new Choice("Sign in anew", ticked -> signIn()));
        return;
      }
      over();
      file.say("not known what the server has");
      ask(
          "Whether the server has taken the change back is not known",
          "The line is away. When it is back, what the server has is compared with your text.");
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
