package zander.desk.model;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;
import zander.desk.sheet.Question;

/** Text that was not saved outlives the program. */
class DraftsTest {
  private static final RemotePath INDEX = RemotePath.of("/home/warden/trial/index.html");

  @TempDir Path folder;

  private static FileModel open(ModelDesk window, DeskModel desk) throws Exception {
    window.on(
        () -> {
          desk.openFile(INDEX);
          return null;
        });
    window.until("it is open", () -> desk.currentProperty().get() instanceof FileModel);
    return (FileModel) window.on(() -> desk.currentProperty().get());
  }

  private static void type(ModelDesk window, FileModel file, String text) throws Exception {
    window.on(
        () -> {
          file.edited(text);
          return null;
        });
  }

  @Test
  void isOfferedAtTheNextStartAndGoesWhenItIsSaved() throws Exception {
    String words = "not saved: 2.48 m at Long Reach \u00e4\n";
    try (ModelDesk window = new ModelDesk(folder)) {
      DeskModel desk = window.openLabBox("/home/warden/trial", null);
      FileModel file = open(window, desk);
      type(window, file, "first");
      type(window, file, words);
      window.until("it is kept", () -> isKept(window, desk, words));
    }
    try (ModelDesk window = new ModelDesk(folder)) {
      DeskModel desk = window.openLabBox("/home/warden/trial", null);
      window.until("it is offered", () -> desk.folder().questionProperty().get() != null);
      Question asked = window.on(() -> desk.folder().questionProperty().get());
      assertThat(asked.said().headline()).contains("Unsaved text of 1 file");
      window.on(
          () -> {
            asked.choices().get(0).chosen().accept(false);
            return null;
          });
      window.until("it is open", () -> desk.currentProperty().get() instanceof FileModel);
      FileModel file = (FileModel) window.on(() -> desk.currentProperty().get());
      window.until("it is taken", () -> words.equals(file.draftedProperty().get()));
      type(window, file, words);
      window.on(
          () -> {
            file.save();
            return null;
          });
      window.until("it is saved", () -> !file.isUnsaved());
      window.on(
          () -> {
            desk.close(file);
            return null;
          });
      window.until("nothing is kept any more", () -> isKept(window, desk, null));
    }
  }

  private static boolean isKept(ModelDesk window, DeskModel desk, String text) {
    try {
      var all = window.app.draftsOf(desk.entry(), null).all();
      return text == null ? all.isEmpty() : all.size() == 1 && all.get(0).text().equals(text);
    } catch (java.io.IOException e) {
      throw new AssertionError(e);
    }
  }
}
