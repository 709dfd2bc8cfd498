package zander.desk;

import java.nio.file.Path;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** The pictures of rights: of a tree, and of who can reach a file; see {@link Screenshots}. */
class RightsScreenshots {
  @TempDir Path folder;
  private Window window;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    window.openLevelsWeb();
    window.press("#fold");
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  @Test
  void whatWouldChangeInATree() throws Exception {
    window.choose("#server-table", "stations", "uploads", "img", "contact.html", "latest.html");
    window.press("#rights-inside");
    window.until("it is asked", () -> window.shownOrNull("#tree-owner") != null);
    window.fill("#tree-owner", "deploy");
    window.fill("#files-octal", "0644");
    window.fill("#folders-octal", "2755");
    window.push(KeyCode.ENTER);
    window.until("it was looked", () -> window.shownOrNull("#tree-as-root") != null);
    window.press("#tree-as-root");
    window.giveThePassword("root");
    window.until("root looked", () -> window.shownOrNull("#tree-entries") != null);
    Screenshots.keep(window, "rights-tree");
  }

  @Test
  void whoCanReachAFile() throws Exception {
    window.choose("#server-table", "alerts.html");
    window.press("#access-open");
    window.until("it is told", () -> window.shownOrNull("#access-cure-2") != null);
    Screenshots.keep(window, "who-can-reach");
  }
}
