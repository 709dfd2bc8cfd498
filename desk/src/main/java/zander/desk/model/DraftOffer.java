package zander.desk.model;

import java.util.List;
import zander.desk.sheet.Question;
import zander.desk.sheet.Texts;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/** Says which texts were not saved when the program ended, and opens them on wish. */
final class DraftOffer {
  private final DeskModel desk;
  private final Drafts drafts;

  DraftOffer(DeskModel desk, Drafts drafts) {
    this.desk = desk;
    this.drafts = drafts;
  }

  /** Asks in the folder sheet, if there are any. */
  void make() {
    desk.background().run(drafts::all, this::ask, failure -> {});
  }

  private void ask(List<Drafts.Draft> left) {
    if (left.isEmpty()) {
      return;
    }
    desk.folder()
        .ask(
            Question.notice(
                new Message(
                    "Unsaved text of "
                        + Texts.count(left.size(), "file")
                        + " was kept when Zander ended",
                    Drafts.names(left) + ". The server has the versions before it."),
                true,
                new Question.Choice("Open drafts", ticked -> open(left)),
                new Question.Choice("Discard drafts", ticked -> drop(left)),
                desk.folder().dismiss()));
  }

  private void open(List<Drafts.Draft> left) {
    desk.folder().dismissQuestion();
    for (Drafts.Draft draft : left) {
      desk.openFile(draft.path(), file -> file.takeDraft(draft));
    }
  }

  private void drop(List<Drafts.Draft> left) {
    desk.folder().dismissQuestion();
    desk.background()
        .run(
            () -> {
              for (Drafts.Draft draft : left) {
                drafts.drop(draft.path());
              }
              return left;
            },
            done -> {},
            failure ->
                desk.folder()
                    .ask(Question.notice(FailureWords.of(failure), true, desk.folder().dismiss())));
  }
}
