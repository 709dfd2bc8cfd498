package zander.desk.file;

import java.util.List;
import zander.core.files.RemotePath;
import zander.desk.folder.FolderModel;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** Says which texts were not saved when the program ended, and opens them on wish. */
public final class DraftOffer {
  private static final Words WORDS = Words.of(DraftOffer.class);

  private final OpenDesk desk;
  private final FolderModel folder;
  private final FileSheets files;
  private final Drafts drafts;

  public DraftOffer(OpenDesk desk, FolderModel folder, FileSheets files, Drafts drafts) {
    this.desk = desk;
    this.folder = folder;
    this.files = files;
    this.drafts = drafts;
  }

  /** Asks in the folder sheet, if there are any. */
  public void make() {
    desk.background().run(drafts::paths, this::ask, failure -> {});
  }

  private void ask(List<RemotePath> left) {
    if (left.isEmpty()) {
      return;
    }
    folder.ask(
        Question.notice(
            new Message(
                WORDS.say("unsavedTextOfWas", Texts.count(left.size(), "file")),
                WORDS.say("theServerHasThe", Drafts.names(left))),
            true,
            new Question.Choice(WORDS.say("openDrafts"), ticked -> open()),
            new Question.Choice(WORDS.say("discardDrafts"), ticked -> drop(left)),
            folder.dismiss()));
  }

  private void open() {
    folder.dismissQuestion();
    desk.background()
        .run(
            drafts::all,
            left -> {
              for (Drafts.Draft draft : left) {
                files.open(draft.path(), file -> file.takeDraft(draft));
              }
            },
            failure -> folder.tellFailure(FailureWords.of(failure)));
  }

  private void drop(List<RemotePath> left) {
    folder.dismissQuestion();
    desk.background()
        .run(
            () -> {
              for (RemotePath path : left) {
                drafts.drop(path);
              }
              return left;
            },
            done -> {},
            failure -> folder.tellFailure(FailureWords.of(failure)));
  }
}
