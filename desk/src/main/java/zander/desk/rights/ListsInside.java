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
import zander.desk.words.Words;
import zander.desk.work.Message;

/**
 * An entry of the access lists of all that is in a folder: looked at, asked about in the folder's
 * sheet, set, read back. Interface thread only.
 */
final class ListsInside {
  private static final Words WORDS = Words.of(ListsInside.class);

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
    new FolderTask(folder, WORDS.say("lookingAtTheAccess", wanted.top().name()))
        .run(task -> lists().look(wanted, read -> tell(task, read), task.stop()), this::asked);
  }

  private static void tell(FolderTask task, long done) {
    task.tell(Texts.count(done, "entry"));
  }

  private void asked(Preview preview) {
    if (preview.count() == 0) {
      folder.tell(
          new Message(
              WORDS.say("nothingWouldChangeBelow", wanted.top().name()), WORDS.say("allHaveItSo")));
      return;
    }
    String more =
        preview.unmasked() == 0
            ? ""
            : WORDS.say("theMaskOfWould", Texts.count(preview.unmasked(), "entry"));
    folder.ask(
        Question.notice(
            new Message(
                WORDS.say("below", words, counted(preview), wanted.top().name()),
                WORDS.say("linksAndOtherFile", more)),
            preview.unmasked() > 0,
            new Choice(WORDS.say("setOn", Texts.count(preview.count())), ticked -> set(preview)),
            new Choice(WORDS.say("cancel"), ticked -> folder.dismissQuestion())));
  }

  private static String counted(Preview preview) {
    String files = Texts.count(preview.files(), "file");
    String folders = Texts.count(preview.folders(), "folder");
    return preview.files() == 0
        ? folders
        : preview.folders() == 0 ? files : WORDS.say("and", files, folders);
  }

  private void set(Preview preview) {
    new FolderTask(folder, WORDS.say("settingAccessListsBelow", wanted.top().name()))
        .run(task -> lists().set(preview, done -> tell(task, done), task.stop()), this::done);
  }

  private void done(Outcome outcome) {
    String left =
        outcome.left() == 0
            ? ""
            : Texts.count(outcome.left())
                + (outcome.stopped() ? WORDS.say("wereNotComeTo") : WORDS.say("wereNotTheyBelong"));
    Message said =
        new Message(WORDS.say("setAndReadBack", Texts.count(outcome.set(), "accessListIs")), left);
    if (outcome.left() > 0) {
      folder.tellFailure(said);
    } else {
      folder.tell(said);
    }
    desk.changed(List.of(wanted.top()));
    folder.refresh();
  }
}
