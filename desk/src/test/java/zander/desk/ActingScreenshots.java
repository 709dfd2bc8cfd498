package zander.desk;

import java.nio.file.Path;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;

/** The pictures of a save that goes on as root; see {@link Screenshots}. */
class ActingScreenshots {
  @TempDir Path folder;
  private Window window;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  @Test
  void aRefusedSaveGoesOnAsRoot() throws Exception {
    window.openLevelsWeb();
    RemotePath file = RemotePath.of("/etc/levels/site.conf");
    Window.inWindow(
        () -> {
          window.desk().openFile(file);
          return null;
        });
    window.until("it is said", () -> window.shownOrNull("#choice-read-only") != null);
    window.press("#choice-read-only");
    window.clickOn(window.shown("#editor"));
    window.push(KeyCode.CONTROL, KeyCode.HOME);
    window.write("# as of today");
    window.push(KeyCode.ENTER);
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is refused", () -> window.shownOrNull("#choice-go-on-as-root") != null);
    window.press("#choice-go-on-as-root");
    window.until("the password is asked", () -> window.shownOrNull("#secret") != null);
    Screenshots.keep(window, "root-password");
  }
}
