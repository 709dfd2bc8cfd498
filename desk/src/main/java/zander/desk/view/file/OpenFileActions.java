package zander.desk.view.file;

import java.util.List;
import java.util.function.Consumer;
import zander.core.files.RemoteEntry;
import zander.desk.compare.CompareModel;
import zander.desk.file.FileModel;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Action;
import zander.desk.sheet.Sheet;

/** What can be done with a file beside editing it here, by name and by key. */
public final class OpenFileActions {
  private final DeskModel desk;

  public OpenFileActions(DeskModel desk) {
    this.desk = desk;
  }

  public List<Action> all() {
    return List.of(
        new Action(
            "Compare side by side",
            "Alt+Shift+E",
            () -> withFile(file -> CompareModel.show(desk, file)),
            () -> desk.currentProperty().get() instanceof FileModel ? "" : "no file is in front"),
        new Action("Open in another program …", "Alt+Shift+O", this::open, this::whyNotOpen),
        new Action(
            "Done in the other program …",
            "",
            () -> withFile(desk.programs()::askToStop),
            () ->
                desk.currentProperty().get() instanceof FileModel file
                        && !desk.programs().nameFor(file).isEmpty()
                    ? ""
                    : "no file that is open elsewhere is in front"),
        new Action("Files open in other programs", "", desk.programs()::tellAll));
  }

  private void withFile(Consumer<FileModel> then) {
    if (desk.currentProperty().get() instanceof FileModel file) {
      then.accept(file);
    }
  }

  private void open() {
    Sheet front = desk.currentProperty().get();
    if (front == desk.folder()) {
      desk.programs().ask(desk.folder().selection().get(0).path());
    } else {
      withFile(desk.programs()::ask);
    }
  }

  private String whyNotOpen() {
    Sheet front = desk.currentProperty().get();
    if (front == desk.folder()) {
      List<RemoteEntry> chosen = desk.folder().selection();
      boolean one = chosen.size() == 1 && !chosen.get(0).attributes().isFolder();
      return one ? "" : "select one file first";
    }
    return front instanceof FileModel ? "" : "no file is in front";
  }
}
