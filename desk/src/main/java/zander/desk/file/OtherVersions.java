package zander.desk.file;

import java.util.ArrayList;
import java.util.List;
import zander.core.edit.LineDifference;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.desk.compare.CompareModel;
import zander.desk.compare.FileVersions;
import zander.desk.compare.FileVersions.Version;
import zander.desk.save.EditedFile;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.words.Words;
import zander.desk.work.FailureWords;
import zander.desk.work.Message;

/**
 * Other versions of an open file, compared with its text one after the other: what the journal has
 * kept, and backups that lie beside it. Interface thread only.
 */
final class OtherVersions {
  private static final Words WORDS = Words.of(OtherVersions.class);

  private final OpenDesk desk;
  private final EditedFile file;

  OtherVersions(OpenDesk desk, EditedFile file) {
    this.desk = desk;
    this.file = file;
  }

  /** Looks for them, and shows the newest. */
  void show() {
    RemotePath real = file.version().real();
    RemoteFiles files = desk.files();
    Journal journal = desk.journal();
    desk.background()
        .run(
            () -> FileVersions.of(journal, files, real),
            all -> {
              if (all.isEmpty()) {
                tell(
                    WORDS.say("noOtherVersionsOf", file.path().name()),
                    WORDS.say("theJournalHasNone"));
              } else {
                show(all, 0);
              }
            },
            this::failed);
  }

  private record Read(String text, List<LineDifference.Line> difference) {}

  private void show(List<Version> all, int at) {
    Version version = all.get(at);
    String mine = file.text();
    desk.background()
        .run(
            () -> {
              String text = version.text();
              return new Read(text, LineDifference.of(text, mine));
            },
            read -> ask(all, at, read),
            this::failed);
  }

  private void ask(List<Version> all, int at, Read read) {
    List<Choice> choices = new ArrayList<>();
    boolean same = read.difference.isEmpty();
    if (!same) {
      choices.add(
          new Choice(
              WORDS.say("putItsTextHere"),
              ticked -> {
                file.dismissQuestion();
                file.putIn(read.text);
              }));
    }
    if (all.size() > 1) {
      int next = (at + 1) % all.size();
      choices.add(new Choice(WORDS.say("theNextOne"), ticked -> show(all, next)));
    }
    choices.add(
        new Choice(
            WORDS.say("sideBySide"),
            ticked -> {
              file.dismissQuestion();
              CompareModel.show(desk, file);
            }));
    choices.add(new Choice(WORDS.say("close"), ticked -> file.dismissQuestion()));
    String which = all.size() > 1 ? WORDS.say("of", at + 1, all.size()) : "";
    file.ask(
        Question.notice(
                new Message(
                    all.get(at).name(),
                    which + (same ? WORDS.say("itHasTheSame") : WORDS.say("linesWithAreOnly"))),
                false,
                choices.toArray(Choice[]::new))
            .withDifference(read.difference));
  }

  private void failed(Throwable failure) {
    Message said = FailureWords.of(failure);
    tell(said.headline(), said.detail());
  }

  private void tell(String headline, String detail) {
    file.ask(
        Question.notice(
            new Message(headline, detail),
            false,
            new Choice(WORDS.say("close"), ticked -> file.dismissQuestion())));
  }
}
