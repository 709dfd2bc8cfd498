package zander.desk;

import org.fxmisc.richtext.CodeArea;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;

/** A file of the desk in front, in the editor. */
record OpenedFile(FileModel model, CodeArea editor) {
  /** Opens it, and waits until the text has the keyboard. */
  static OpenedFile open(Window window, String path) {
    window.interact(() -> window.desk().openFile(RemotePath.of(path), 0));
    return await(window, path);
  }

  /** The same for one that something else opens. */
  static OpenedFile await(Window window, String path) {
    window.until(
        path + " is open",
        () ->
            window.desk().currentProperty().get() instanceof FileModel file
                && file.path().text().equals(path));
    window.until(
        "the text has the keyboard",
        () -> window.shownOrNull("#editor") instanceof CodeArea area && area.isFocused());
    return new OpenedFile(
        (FileModel) window.desk().currentProperty().get(), (CodeArea) window.shown("#editor"));
  }
}
