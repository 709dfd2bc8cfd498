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
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** What is said and offered when a file cannot be saved, or will not be. */
public final class SaveQuestions {
  private final OpenDesk desk;
  private final EditedFile file;

  public SaveQuestions(OpenDesk desk, EditedFile file) {
    this.desk = desk;
    this.file = file;
  }

  /** For the first file of a server that cannot replace one in one step. */
  public Question savedInSteps() {
    return Question.notice(
        new Message(
            "This server cannot replace a file in one step",
            "A save moves the old file aside and the new one in. For a moment the name is"
                + " free; if the connection breaks just then, Zander finishes the save when"
                + " it is back."),
        false,
        keepEditing());
  }

  /** For a text that was not saved when the program ended, of a file that is another by now. */
  public Question draftOfAnother() {
    return Question.notice(
        new Message(
            file.path().name() + " was changed on the server since you wrote this",
            "The text here is yours; saving puts it in the place of the other version, which"
                + " the journal keeps."),
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
        new Message(
            file.path().name() + " is not saved",
            "The server has the version before your changes."),
        true,
        new Choice("Save", ticked -> file.save(List.of())),
        new Choice("Close without saving", ticked -> close.run()),
        keepEditing());
  }

  /** After a save that was not made. */
  Question afterFailure(Throwable failure) {
    Message said = FailureWords.of(failure);
    if (failure instanceof UnencodableTextException) {
      return Question.notice(
          said, true, new Choice("Save as UTF-8", ticked -> file.saveInUtf8()), keepEditing());
    }
    if (failure instanceof GuardRefused) {
      return Question.notice(
          said,
          true,
          new Choice("Save without it, this once", ticked -> file.savePlainly()),
          keepEditing());
    }
    SaveFailure.Reason reason =
        failure instanceof SaveFailure save ? save.reason() : SaveFailure.Reason.REFUSED;
    return switch (reason) {
      case CHANGED_MEANWHILE ->
          Question.notice(
              said,
              true,
              new Choice("Merge both", ticked -> file.mergeTheirs()),
              saving("Replace theirs with mine", Allow.REPLACE_OTHERS_CHANGE),
              new Choice("Load theirs", ticked -> file.loadTheirs()),
              keepEditing());
      case OWNER_WOULD_CHANGE ->
          desk.mayActAsRoot()
              ? Question.notice(
                  said,
                  true,
                  asRoot(),
                  saving("Save, and own it", Allow.OWNER_CHANGE),
                  keepEditing())
              : Question.notice(
                  said, true, saving("Save, and own it", Allow.OWNER_CHANGE), keepEditing());
      case CHECK_REFUSED -> refusedByCheck(failure, said);
      case METADATA_WOULD_CHANGE ->
          Question.notice(
              said, true, saving("Save as a new file", Allow.METADATA_CHANGE), keepEditing());
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
        new Choice("Change the check …", ticked -> file.askForRules()),
        new Choice("Save unchecked, this once", ticked -> file.savePlainly()),
        keepEditing());
  }

  private Question again(Throwable failure, Message said) {
    Choice again = new Choice("Try again", ticked -> file.save(List.of()));
    return desk.mayRootHelp(failure.getCause())
        ? Question.notice(said, true, asRoot(), again, keepEditing())
        : Question.notice(said, true, again, keepEditing());
  }

  /** What saving would change. */
  public Question changes(List<LineDifference.Line> difference) {
    String name = file.path().name();
    Choice close = new Choice("Close", ticked -> file.dismissQuestion());
    if (difference.isEmpty() && file.isUnsaved()) {
      return Question.notice(
          new Message(
              "The text of " + name + " has no changes",
              "Saving changes its line ends or its encoding."),
          false,
          new Choice("Save to server", ticked -> file.save(List.of())),
          close);
    }
    if (difference.isEmpty()) {
      return Question.notice(
          new Message(name + " has no changes", "The text here is the server's."), false, close);
    }
    return Question.notice(
            new Message("Your changes in " + name, "Saving makes these on the server."),
            false,
            new Choice("Save to server", ticked -> file.save(List.of())),
            new Choice(
                "Side by side",
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
    Choice load = new Choice("Load theirs", ticked -> file.loadTheirs());
    String changed = file.path().name() + " was changed on the server";
    return (file.isUnsaved()
            ? Question.notice(
                new Message(
                    changed,
                    "Your changes are here and not on the server. Merging puts both together;"
                        + " nothing is saved by it."),
                false,
                new Choice("Merge both", ticked -> file.mergeTheirs()),
                load,
                keepEditing())
            : Question.notice(
                new Message(changed, "The text here is the version before."),
                false,
                (grew ? List.of(load, follow(), keepEditing()) : List.of(load, keepEditing()))
                    .toArray(Choice[]::new)))
        .withDifference(difference);
  }

  private Choice follow() {
    return new Choice(
        "Follow it as it grows",
        ticked -> {
          file.dismissQuestion();
          ReadingModel.show(desk, file.path());
        });
  }

  /** For a file that was opened and cannot be saved by this account. */
  public Question readOnly() {
    Message said =
        new Message(
            file.path().name() + " can be read but not saved",
            "Your account cannot write to this file, and cannot replace it in its folder.");
    Choice reading = new Choice("Read only", ticked -> file.dismissQuestion());
    return desk.mayActAsRoot()
        ? Question.notice(
            said, false, new Choice("Edit as root", ticked -> file.goOnAsRoot()), follow(), reading)
        : Question.notice(said, false, follow(), reading);
  }

  private Choice saving(String words, Allow allowed) {
    return new Choice(words, ticked -> file.save(List.of(allowed)));
  }

  private Choice asRoot() {
    return new Choice("Go on as root", ticked -> file.goOnAsRoot());
  }

  public Choice keepEditing() {
    return new Choice("Keep editing", ticked -> file.dismissQuestion());
  }
}
