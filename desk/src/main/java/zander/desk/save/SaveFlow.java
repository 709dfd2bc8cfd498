package zander.desk.save;

import static java.util.Objects.requireNonNull;

import java.io.IOException;
import java.time.Duration;
import java.util.List;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicReference;
import org.jspecify.annotations.Nullable;
import zander.core.change.effect.GuardRefused;
import zander.core.change.effect.ReturnGuard;
import zander.core.change.save.AtomicSave;
import zander.core.change.save.AtomicSave.Allow;
import zander.core.change.save.FileVersion;
import zander.core.change.save.NotPutBack;
import zander.core.change.save.SaveFailure;
import zander.core.connect.command.Commands;
import zander.core.edit.UnencodableTextException;
import zander.core.files.RemoteFiles;
import zander.core.journal.JournalEntry;
import zander.core.work.Cancellation;
import zander.desk.edit.EditedText;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.words.Words;
import zander.desk.work.Message;

/**
 * A save of an open file with all that goes with it: the checks around it, the guard that takes it
 * back, and the command that makes it take effect. Interface thread only.
 */
public final class SaveFlow {
  private static final Words WORDS = Words.of(SaveFlow.class);

  /** What is quicker is not told while it runs. */
  static final Duration SLOW = Duration.ofMillis(1500);

  private final OpenDesk desk;
  private final EditedFile file;
  private final SaveQuestions questions;
  private final RulesQuestions rules;
  private final EffectSteps effects;
  private final GuardSteps guards;

  public SaveFlow(OpenDesk desk, EditedFile file, KeptSaveRules kept, SaveQuestions questions) {
    this.desk = desk;
    this.file = file;
    this.questions = questions;
    this.rules = new RulesQuestions(desk, file, kept);
    this.effects = new EffectSteps(desk, file, rules);
    this.guards = new GuardSteps(desk, file, effects);
  }

  /** Asks for what is to go with each save. */
  public void askForRules() {
    rules.ask();
  }

  /** Saves with what goes with it. */
  public void save(List<Allow> allowed) {
    if (isFree()) {
      rules.before(chosen -> save(allowed, chosen));
    }
  }

  /** Once without it. */
  public void savePlainly() {
    save(List.of(), SaveRules.NONE);
  }

  private boolean isFree() {
    return !file.isBusy() && !guards.isWaiting();
  }

  private void save(List<Allow> allowed, SaveRules wanted) {
    if (!isFree()) {
      return;
    }
    EditedText.Snapshot saving = file.toBeSaved();
    Run run = new Run(desk, file, allowed, wanted, new Cancellation(), new AtomicReference<>());
    file.setBusy(true);
    file.say(wanted.isChecked() ? WORDS.say("checkingAndSaving") : WORDS.say("saving"));
    Future<?> watch = desk.background().later(SLOW, () -> tellOf(run));
    desk.background()
        .run(
            () -> run.save(saving),
            done -> {
              watch.cancel(false);
              saved(run, saving.text(), done);
            },
            failure -> {
              watch.cancel(false);
              failed(run, saving.text(), failure);
            });
  }

  /** Tells what runs, if it takes long, and lets the person stop it. */
  private void tellOf(Run run) {
    if (file.isBusy() && run.rules.isChecked()) {
      String both = (run.rules.check() + "\n" + run.rules.after()).strip();
      file.ask(
          Question.notice(
              new Message(WORDS.say("checkingTheNewContent"), both),
              false,
              new Choice(WORDS.say("stopAndDoNot"), ticked -> run.stop.stop())));
    }
  }

  /**
   * A save that was made.
   *
   * @param passing whether the version before can be put back only as long as Zander runs
   * @param guard takes it back; {@code null} for none
   */
  record Done(AtomicSave.Saved made, boolean passing, @Nullable ReturnGuard guard) {}

  /** One save, for a thread that may wait. */
  private record Run(
      OpenDesk desk,
      FileVersion before,
      RemoteFiles files,
      Commands commands,
      AtomicSave saver,
      List<Allow> allowed,
      SaveRules rules,
      Cancellation stop,
      AtomicReference<byte[]> content) {
    Run(
        OpenDesk desk,
        EditedFile file,
        List<Allow> allowed,
        SaveRules rules,
        Cancellation stop,
        AtomicReference<byte[]> content) {
      this(
          desk,
          file.version(),
          desk.files(),
          desk.commands(),
          file.saver().trying(rules.before(stop)).tryingAfter(rules.afterwards(stop)),
          allowed,
          rules,
          stop,
          content);
    }

    Done save(EditedText.Snapshot saving) throws IOException {
      byte[] encoded = saving.encode();
      content.set(encoded);
      ReturnGuard guard = rules.isGuarded() ? begin(encoded) : null;
      AtomicSave.Saved made;
      try {
        made = saver.save(before, encoded, allowed);
      } catch (SaveFailure e) {
        if (guard != null && e.state() == SaveFailure.ServerState.OLD) {
          letGo(guard, e);
        }
        throw e;
      }
      if (guard != null && isTooLate(guard)) {
        GuardRefused late = new GuardRefused(GuardRefused.Reason.TOO_LATE, "");
        saver.takeBack(made, allowed, late);
        throw late;
      }
      return new Done(made, endsWithThisRun(made.version()), guard);
    }

    /** What was sent, or was about to be. */
    byte[] encoded() {
      return requireNonNull(content.get(), "it is encoded first");
    }

    /** Its change was not made; if the line is gone, it finds that by itself. */
    private void letGo(ReturnGuard guard, SaveFailure failure) {
      try {
        guard.keep(files);
      } catch (IOException e) {
        failure.addSuppressed(e);
      }
    }

    /** Where nobody can look any more, the guard does what it is for. */
    private boolean isTooLate(ReturnGuard guard) {
      try {
        return guard.hasEnded(files);
      } catch (IOException e) {
        return false;
      }
    }

    private ReturnGuard begin(byte[] after) throws IOException {
      return ReturnGuard.start(
          files,
          commands,
          new ReturnGuard.Wanted(before.real(), after, rules.effectCommand(), rules.time()));
    }

    private boolean endsWithThisRun(FileVersion after) {
      try {
        List<JournalEntry> about = desk.journal().about(after.real());
        return !about.isEmpty() && desk.journal().endsWithThisRun(about.get(0));
      } catch (IOException e) {
        // The save is made; the history tells what became of its journal.
        return false;
      }
    }
  }

  private void saved(Run run, String text, Done done) {
    file.setBusy(false);
    file.saved(done.made().version(), text);
    String state =
        WORDS.say(
            "savedToTheServer",
            run.rules.isChecked() ? WORDS.say("checked") : "",
            done.made().inPlace() ? WORDS.say("writtenIntoTheSame") : "",
            done.passing() ? WORDS.say("itCanBePut") : "");
    if (!file.isUnsaved()) {
      file.say(state);
    }
    EffectSteps.Change change =
        new EffectSteps.Change(done.made(), run.encoded(), run.saver, run.allowed, run.rules);
    if (done.guard() != null) {
      guards.begin(change, done.guard());
    } else if (!run.rules.effect().isEmpty()) {
      effects.after(change, state);
    } else {
      new KeptAfterSave(desk, file).tell();
    }
  }

  private void failed(Run run, String text, Throwable failure) {
    file.setBusy(false);
    file.say(WORDS.say("notOnTheServerYet"));
    if (failure instanceof NotPutBack stands) {
      file.saved(stands.saved().version(), text);
      EffectSteps.Change change =
          new EffectSteps.Change(stands.saved(), run.encoded(), run.saver, run.allowed, run.rules);
      effects.notPutBack(change, stands);
      return;
    }
    if (failure instanceof SaveFailure save
        && (save.state() == SaveFailure.ServerState.OLD_OR_NEW
            || save.state() == SaveFailure.ServerState.UNFINISHED)) {
      file.perhapsSaved(run.encoded());
    }
    if (!(failure instanceof UnencodableTextException)) {
      desk.checkLine();
    }
    file.ask(questions.afterFailure(failure));
  }

  /** The sheet is closed; what the server was told goes on there. */
  public void closed() {
    guards.closed();
  }
}
