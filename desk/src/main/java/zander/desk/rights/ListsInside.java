package zander.desk.rights;

import java.util.List;
import java.util.concurrent.CancellationException;
import zander.core.change.rights.AccessListTree;
import zander.core.change.rights.AccessListTree.Outcome;
import zander.core.change.rights.AccessListTree.Preview;
import zander.core.change.rights.AccessListTree.Wanted;
import zander.core.work.Cancellation;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.sheet.Sheet;
import zander.desk.sheet.Texts;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * An entry of the access lists of all that is in a folder: looked at, asked about in the sheet in
 * front, set, read back. Interface thread only.
 */
final class ListsInside {
  private final OpenDesk desk;
  private final Wanted wanted;
  private final String words;
  private final Sheet sheet;
  private final Cancellation stop = new Cancellation();

  /**
   * @param words what is to be done, as the beginning of a sentence
   */
  ListsInside(OpenDesk desk, Wanted wanted, String words) {
    this.desk = desk;
    this.wanted = wanted;
    this.words = words;
    this.sheet = desk.openSheets().front();
  }

  private AccessListTree lists() {
    return new AccessListTree(desk.files(), desk.commands(), desk.journal());
  }

  void look() {
    underWay("Looking at the access lists below " + wanted.top().name());
    desk.background().run(() -> lists().look(wanted, stop), this::asked, this::failed);
  }

  private void underWay(String what) {
    sheet.ask(
        Question.notice(new Message(what, ""), false, new Choice("Stop", ticked -> stop.stop())));
  }

  private void asked(Preview preview) {
    if (preview.count() == 0) {
      sheet.tell(
          new Message("Nothing would change below " + wanted.top().name(), "All have it so."));
      return;
    }
    String more =
        preview.unmasked() == 0
            ? ""
            : " The mask of "
                + Texts.count(preview.unmasked(), "entry", "entries")
                + " would let more through, also to others in the list.";
    sheet.ask(
        Question.notice(
            new Message(
                words + " " + counted(preview) + " below " + wanted.top().name() + "?",
                "Links and other file systems are left alone. It can be put back from the journal."
                    + more),
            preview.unmasked() > 0,
            new Choice("Set on " + Texts.count(preview.count()), ticked -> set(preview)),
            new Choice("Cancel", ticked -> sheet.dismissQuestion())));
  }

  private static String counted(Preview preview) {
    String files = Texts.count(preview.files(), "file", "files");
    String folders = Texts.count(preview.folders(), "folder", "folders");
    return preview.files() == 0
        ? folders
        : preview.folders() == 0 ? files : files + " and " + folders;
  }

  private void set(Preview preview) {
    underWay("Setting access lists below " + wanted.top().name());
    desk.background().run(() -> lists().set(preview, stop), this::done, this::failed);
  }

  private void done(Outcome outcome) {
    String left =
        outcome.left() == 0
            ? ""
            : Texts.count(outcome.left())
                + (outcome.stopped()
                    ? " were not come to."
                    : " were not: they belong to others, cannot be opened, or changed meanwhile.");
    Message said =
        new Message(
            Texts.count(outcome.set(), "access list is", "access lists are") + " set and read back",
            left);
    if (outcome.left() > 0) {
      sheet.tellFailure(said);
    } else {
      sheet.tell(said);
    }
    desk.changed(List.of(wanted.top()));
    desk.openSheets().of(FolderModel.class).forEach(FolderModel::refresh);
  }

  private void failed(Throwable failure) {
    if (failure instanceof CancellationException) {
      sheet.dismissQuestion();
      return;
    }
    sheet.tellFailure(FailureWords.of(failure));
    desk.checkLine();
  }
}
