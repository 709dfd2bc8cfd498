package zander.desk.rights;

import java.util.List;
import zander.core.change.rights.AccessListTree;
import zander.core.change.rights.AccessListTree.Outcome;
import zander.core.change.rights.AccessListTree.Preview;
import zander.core.change.rights.AccessListTree.Wanted;
import zander.desk.folder.FolderModel;
import zander.desk.folder.action.FolderTask;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.sheet.Texts;
import zander.desk.work.Message;

/**
 * An entry of the access lists of all that is in a folder: looked at, asked about in the folder's
 * sheet, set, read back. Interface thread only.
 */
final class ListsInside {
  private final OpenDesk desk;
  private final FolderModel folder;
  private final Wanted wanted;
  private final String words;

  /**
   * @param folder where it is told and asked
   * @param words what is to be done, as the beginning of a sentence
   */
  ListsInside(OpenDesk desk, FolderModel folder, Wanted wanted, String words) {
    this.desk = desk;
    this.folder = folder;
    this.wanted = wanted;
    this.words = words;
  }

  private AccessListTree lists() {
    return new AccessListTree(desk.files(), desk.commands(), desk.journal());
  }

  void look() {
    desk.openSheets().frontProperty().set(folder);
    new FolderTask(folder, "Looking at the access lists below " + wanted.top().name())
        .run(task -> lists().look(wanted, read -> tell(task, read), task.stop()), this::asked);
  }

  private static void tell(FolderTask task, long done) {
    task.tell(Texts.count(done, "entry", "entries"));
  }

  private void asked(Preview preview) {
    if (preview.count() == 0) {
      folder.tell(
          new Message("Nothing would change below " + wanted.top().name(), "All have it so."));
      return;
    }
    String more =
        preview.unmasked() == 0
            ? ""
            : " The mask of "
                + Texts.count(preview.unmasked(), "entry", "entries")
                + " would let more through, also to others in the list.";
    folder.ask(
        Question.notice(
            new Message(
                words + " " + counted(preview) + " below " + wanted.top().name() + "?",
                "Links and other file systems are left alone. It can be put back from the journal."
                    + more),
            preview.unmasked() > 0,
            new Choice("Set on " + Texts.count(preview.count()), ticked -> set(preview)),
            new Choice("Cancel", ticked -> folder.dismissQuestion())));
  }

  private static String counted(Preview preview) {
    String files = Texts.count(preview.files(), "file", "files");
    String folders = Texts.count(preview.folders(), "folder", "folders");
    return preview.files() == 0
        ? folders
        : preview.folders() == 0 ? files : files + " and " + folders;
  }

  private void set(Preview preview) {
    new FolderTask(folder, "Setting access lists below " + wanted.top().name())
        .run(task -> lists().set(preview, done -> tell(task, done), task.stop()), this::done);
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
      folder.tellFailure(said);
    } else {
      folder.tell(said);
    }
    desk.changed(List.of(wanted.top()));
    folder.refresh();
  }
}
