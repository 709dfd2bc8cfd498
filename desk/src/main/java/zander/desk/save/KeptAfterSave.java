package zander.desk.save;

import java.util.List;
import zander.core.files.RemotePath;
import zander.desk.folder.KeptDrift;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.words.Words;
import zander.desk.work.Message;

/** Says of a file that was saved that it has other rights than its folder keeps; once a file. */
final class KeptAfterSave {
  private static final Words WORDS = Words.of(KeptAfterSave.class);

  private final OpenDesk desk;
  private final EditedFile file;

  KeptAfterSave(OpenDesk desk, EditedFile file) {
    this.desk = desk;
    this.file = file;
  }

  void tell() {
    RemotePath real = file.version().real();
    String differs = KeptDrift.of(desk).of(real, file.version().attributes());
    if (differs.isEmpty() || !desk.isFirstTime("rights of " + real.wire())) {
      return;
    }
    file.ask(
        Question.notice(
            new Message(WORDS.say("isSavedItsRights", real.name()), differs),
            false,
            new Choice(
                WORDS.say("lookWhatWouldChange"),
                ticked -> {
                  file.dismissQuestion();
                  desk.marked().showDifferences(List.of(real));
                }),
            new Choice(WORDS.say("leaveThem"), ticked -> file.dismissQuestion())));
  }
}
