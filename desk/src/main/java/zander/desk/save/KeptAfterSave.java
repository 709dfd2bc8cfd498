package zander.desk.save;

import java.util.List;
import zander.core.files.RemotePath;
import zander.desk.folder.KeptDrift;
import zander.desk.sheet.OpenDesk;
import zander.desk.sheet.Question;
import zander.desk.sheet.Question.Choice;
import zander.desk.work.Message;

/** Says of a file that was saved that it has other rights than its folder keeps; once a file. */
final class KeptAfterSave {
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
            new Message(real.name() + " is saved. Its rights are not as kept", differs),
            false,
            new Choice(
                "Look what would change",
                ticked -> {
                  file.dismissQuestion();
                  desk.marked().showDifferences(List.of(real));
                }),
            new Choice("Leave them", ticked -> file.dismissQuestion())));
  }
}
