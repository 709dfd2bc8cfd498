package zander.desk;

import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.desk.file.FileModel;

/** While nobody does anything, the window is not drawn: an idle program costs nothing. */
class RestingWindowTest {
  private static final long QUIET = TimeUnit.MILLISECONDS.toNanos(1500);

  @TempDir Path folder;
  private volatile long drawn;

  @Test
  void whatIsInFrontIsDrawnNoMoreThanItChanges() throws Exception {
    try (Window window = new Window(folder)) {
      Window.inWindow(
          () -> {
            window.stage.getScene().addPreLayoutPulseListener(() -> drawn = System.nanoTime());
            return null;
          });
      rests(window, "the page of servers, with the keyboard in its search");
      window.openLevelsWeb();
      rests(window, "a folder");
      window.openRow("#server-table", "index.html");
      window.until(
          "a file is open", () -> window.desk().currentProperty().get() instanceof FileModel);
      rests(window, "a file with the caret in it");
      window.push(KeyCode.CONTROL, KeyCode.W);
      window.openShell();
      rests(window, "a shell");
      window.openRow("#server-table", "index.html");
      window.until(
          "a file is open", () -> window.desk().currentProperty().get() instanceof FileModel);
      window.clickOn(window.shown(".tab-close"));
      window.until("the desk is closed", () -> window.desk() == null);
      rests(window, "what a closed desk has left");
    }
  }

  /** Frames come sixty times a second while anything moves. */
  private void rests(Window window, String what) {
    drawn = System.nanoTime();
    window.until(what + " rests", () -> System.nanoTime() - drawn > QUIET);
  }
}
