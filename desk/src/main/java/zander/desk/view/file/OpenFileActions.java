package zander.desk.view.file;

import java.util.List;
import java.util.function.Consumer;
import zander.core.files.RemoteEntry;
import zander.desk.compare.CompareModel;
import zander.desk.file.FileModel;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Action;
import zander.desk.sheet.Sheet;
import zander.desk.words.Words;

/** What can be done with a file beside editing it here, by name and by key. */
public final class OpenFileActions {
  private static final Words WORDS = Words.of(OpenFileActions.class);

  private final DeskModel desk;

  public OpenFileActions(DeskModel desk) {
    this.desk = desk;
  }

  public List<Action> all() {
    return List.of(
        new Action(
            WORDS.say("compareSideBySide"),
            "Alt+Shift+E",
            () -> withFile(file -> CompareModel.show(desk, file)),
            this::whyNoFile),
        new Action(WORDS.say("openInAnotherProgram"), "Alt+Shift+O", this::open, this::whyNotOpen),
        new Action(
            WORDS.say("doneInTheOther"),
            "",
            () -> withFile(desk.fileSheets().programs()::askToStop),
            () ->
                desk.currentProperty().get() instanceof FileModel file
                        && !desk.fileSheets().programs().nameFor(file).isEmpty()
                    ? ""
                    : WORDS.say("noFileThatIs")),
        new Action(
            WORDS.say("keepAsTemplate"),
            "",
            () -> withFile(file -> desk.fileSheets().keepAsTemplate(file)),
            this::whyNoFile),
        new Action(
            WORDS.say("copyIntoNew"),
            "",
            () -> withFile(file -> desk.fileSheets().newFiles().copy(file.path(), file.text())),
            this::whyNoFile),
        new Action(
            WORDS.say("newFromTemplate"),
            "Ctrl+Shift+N",
            () -> desk.fileSheets().newFiles().make(desk.folderInFront())),
        new Action(WORDS.say("filesOpenInOther"), "", desk.fileSheets().programs()::tellAll));
  }

  private String whyNoFile() {
    return desk.currentProperty().get() instanceof FileModel ? "" : WORDS.say("noFileIsIn");
  }

  private void withFile(Consumer<FileModel> then) {
    if (desk.currentProperty().get() instanceof FileModel file) {
      then.accept(file);
    }
  }

  private void open() {
    Sheet front = desk.currentProperty().get();
    if (front == desk.folder()) {
      desk.fileSheets().programs().ask(desk.folder().selection().get(0).path());
    } else {
      withFile(desk.fileSheets().programs()::ask);
    }
  }

  private String whyNotOpen() {
    Sheet front = desk.currentProperty().get();
    if (front == desk.folder()) {
      List<RemoteEntry> chosen = desk.folder().selection();
      boolean one = chosen.size() == 1 && !chosen.get(0).attributes().isFolder();
      return one ? "" : WORDS.say("selectOneFileFirst");
    }
    return front instanceof FileModel ? "" : WORDS.say("noFileIsIn");
  }
}
