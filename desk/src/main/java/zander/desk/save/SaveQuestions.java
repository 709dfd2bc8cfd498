package zander.desk.save;

import java.util.List;
import zander.core.change.effect.GuardRefused;
import zander.core.change.save.AtomicSave.Allow;
import zander.core.change.save.CheckRefused;
import zander.core.change.save.SaveFailure;
import zander.core.edit.LineDifference;
import zander.core.edit.UnencodableTextException;
import zander.desk.compare.CompareModel;
import zander.desk.reading.ReadingModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** What is said and offered when a file cannot be saved, or will not be. */
public final class SaveQuestions {
  private static final Words WORDS = Words.of(SaveQuestions.class);

  private final OpenDesk desk;
  private final EditedFile file;

  public SaveQuestions(OpenDesk desk, EditedFile file) {
    this.desk = desk;
    this.file = file;
  }

  /** For the first file of a server that cannot replace one in one step. */
  public Question savedInSteps() {
    return Question.notice(
        new Message(WORDS.say("thisServerCannotReplace"), WORDS.say("aSaveMovesThe")),
        false,
        keepEditing());
  }

  /** For a text that was not saved when the program ended, of a file that is another by now. */
  public Question draftOfAnother() {
    return Question.notice(
        new Message(WORDS.say("wasChangedOnThe", file.path().name()), WORDS.say("theTextHereIs")),
        true,
        keepEditing());
  }

  /**
   * Before a file with changes is closed.
   *
   * @param close closes it without them
   */
  public Question closing(Runnable close) {
    return Question.notice(
        new Message(WORDS.say("isNotSaved", file.path().name()), WORDS.say("theServerHasThe")),
        true,
        new Choice(WORDS.say("save"), ticked -> file.save(List.of())),
        new Choice(WORDS.say("closeWithoutSaving"), ticked -> close.run()),
        keepEditing());
  }

  /** After a save that was not made. */
  Question afterFailure(Throwable failure) {
    Message said = FailureWords.of(failure);
    if (failure instanceof UnencodableTextException) {
      return Question.notice(
          said,
          true,
          new Choice(WORDS.say("saveAsUtf8"), ticked -> file.saveInUtf8()),
          keepEditing());
    }
    if (failure instanceof GuardRefused) {
      return Question.notice(
          said,
          true,
          new Choice(WORDS.say("saveWithoutItThis"), ticked -> file.savePlainly()),
          keepEditing());
    }
    SaveFailure.Reason reason =
        failure instanceof SaveFailure save ? save.reason() : SaveFailure.Reason.REFUSED;
    return switch (reason) {
      case CHANGED_MEANWHILE ->
          Question.notice(
              said,
              true,
              new Choice(WORDS.say("mergeBoth"), ticked -> file.mergeTheirs()),
              saving(WORDS.say("replaceTheirsWithMine"), Allow.REPLACE_OTHERS_CHANGE),
              new Choice(WORDS.say("loadTheirs"), ticked -> file.loadTheirs()),
              keepEditing());
      case OWNER_WOULD_CHANGE ->
          desk.mayActAsRoot()
              ? Question.notice(
                  said,
                  true,
                  asRoot(),
                  saving(WORDS.say("saveAndOwnIt"), Allow.OWNER_CHANGE),
                  keepEditing())
              : Question.notice(
                  said, true, saving(WORDS.say("saveAndOwnIt"), Allow.OWNER_CHANGE), keepEditing());
      case CHECK_REFUSED -> refusedByCheck(failure, said);
      case METADATA_WOULD_CHANGE ->
          Question.notice(
              said, true, saving(WORDS.say("saveAsANew"), Allow.METADATA_CHANGE), keepEditing());
      default ->
          reason == SaveFailure.Reason.REFUSED
                  && failure instanceof SaveFailure save
                  && (save.step() == SaveFailure.Step.TRY
                      || save.step() == SaveFailure.Step.TRY_AFTER)
              ? refusedByCheck(failure, said)
              : again(failure, said);
    };
  }

  /** Refused, stopped, or not to be run at all, which no second try mends. */
  private Question refusedByCheck(Throwable failure, Message said) {
    if (failure.getCause() instanceof CheckRefused refused) {
      refused.line().ifPresent(line -> file.goal().set(line, 0));
    }
    return Question.notice(
        said,
        true,
        new Choice(WORDS.say("changeTheCheck"), ticked -> file.askForRules()),
        new Choice(WORDS.say("saveUncheckedThisOnce"), ticked -> file.savePlainly()),
        keepEditing());
  }

  private Question again(Throwable failure, Message said) {
    Choice again = new Choice(WORDS.say("tryAgain"), ticked -> file.save(List.of()));
    return desk.mayRootHelp(FailureWords.within(failure))
        ? Question.notice(said, true, asRoot(), again, keepEditing())
        : Question.notice(said, true, again, keepEditing());
  }

  /** What saving would change. */
  public Question changes(List<LineDifference.Line> difference) {
    String name = file.path().name();
    Choice close = new Choice(WORDS.say("close"), ticked -> file.dismissQuestion());
    if (difference.isEmpty() && file.isUnsaved()) {
      return Question.notice(
          new Message(WORDS.say("theTextOfHas", name), WORDS.say("savingChangesItsLine")),
          false,
          new Choice(WORDS.say("saveToServer"), ticked -> file.save(List.of())),
          close);
    }
    if (difference.isEmpty()) {
      return Question.notice(
          new Message(WORDS.say("hasNoChanges", name), WORDS.say("theTextHereIsThe")),
          false,
          close);
    }
    return Question.notice(
            new Message(WORDS.say("yourChangesIn", name), WORDS.say("savingMakesTheseOn")),
            false,
            new Choice(WORDS.say("saveToServer"), ticked -> file.save(List.of())),
            new Choice(
                WORDS.say("sideBySide"),
                ticked -> {
                  file.dismissQuestion();
                  CompareModel.show(desk, file);
                }),
            close)
        .withDifference(difference);
  }

  /**
   * For a file that another changed while it is open here.
   *
   * @param grew whether nothing but more lines came to its end, as to a log's
   */
  public Question changedThere(List<LineDifference.Line> difference, boolean grew) {
    Choice load = new Choice(WORDS.say("loadTheirs"), ticked -> file.loadTheirs());
    String changed = WORDS.say("wasChangedOnTheServer", file.path().name());
    return (file.isUnsaved()
            ? Question.notice(
                new Message(changed, WORDS.say("yourChangesAreHere")),
                false,
                new Choice(WORDS.say("mergeBoth"), ticked -> file.mergeTheirs()),
                load,
                keepEditing())
            : Question.notice(
                new Message(changed, WORDS.say("theTextHereIsTheVersion")),
                false,
                (grew ? List.of(load, follow(), keepEditing()) : List.of(load, keepEditing()))
                    .toArray(Choice[]::new)))
        .withDifference(difference);
  }

  private Choice follow() {
    return new Choice(
        WORDS.say("followItAsIt"),
        ticked -> {
          file.dismissQuestion();
          ReadingModel.show(desk, file.path());
        });
  }

  /** For a file that was opened and cannot be saved by this account. */
  public Question readOnly() {
    Message said =
        new Message(
            WORDS.say("canBeReadBut", file.path().name()), WORDS.say("yourAccountCannotWrite"));
    Choice reading = new Choice(WORDS.say("readOnly"), ticked -> file.dismissQuestion());
    return desk.mayActAsRoot()
        ? Question.notice(
            said,
            false,
            new Choice(WORDS.say("editAsRoot"), ticked -> file.goOnAsRoot()),
            follow(),
            reading)
        : Question.notice(said, false, follow(), reading);
  }

  private Choice saving(String words, Allow allowed) {
    return new Choice(words, ticked -> file.save(List.of(allowed)));
  }

  private Choice asRoot() {
    return new Choice(WORDS.say("goOnAsRoot"), ticked -> file.goOnAsRoot());
  }

  public Choice keepEditing() {
    return new Choice(WORDS.say("keepEditing"), ticked -> file.dismissQuestion());
  }
}
