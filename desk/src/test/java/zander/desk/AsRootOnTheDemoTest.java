package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;

/** The demo's own sudo: warden opens a file of root's, edits it and saves it, with one question. */
class AsRootOnTheDemoTest {
  private static final String SETTINGS = "/etc/levels";

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
  void aFileOfRootIsEditedAndKeepsOwnerAndMode() throws Exception {
    window.openLevelsWeb();
    Window.inWindow(
        () -> {
          window.desk().goTo(RemotePath.of(SETTINGS));
          return null;
        });
    window.until(
        "the folder is read", () -> RemotePath.of(SETTINGS).equals(window.desk().folder().path()));
    window.press("#as-root");
    window.until("the password is asked", () -> window.shownOrNull("#secret") != null);
    window.fill("#secret", "heron-at-dusk");
    window.push(KeyCode.ENTER);
    window.until(
        "all is done as root", () -> window.desk() != null && window.desk().actsAs() != null);
    window.until("it is read", () -> window.rows().contains("site.conf"));
    assertThat(window.desk().whoAmI().uid()).isZero();
    window.openRow("#server-table", "site.conf");
    window.until("the editor is open", () -> window.shownOrNull("#editor") != null);
    window.clickOn(window.shown("#editor"));
    window.push(KeyCode.CONTROL, KeyCode.HOME);
    window.write("# seen ");
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is saved", () -> !window.desk().hasUnsaved());
    assertThat(window.content(SETTINGS + "/site.conf")).startsWith("# seen ");
    assertThat(window.stat(SETTINGS + "/site.conf").uid()).isZero();
    assertThat(window.stat(SETTINGS + "/site.conf").gid()).isEqualTo(33);
    assertThat(window.stat(SETTINGS + "/site.conf").mode()).isEqualTo(0640);
    window.press("#stop-acting");
    window.until("the right has ended", () -> window.model.desks().size() == 1);
  }

  /** It is said as the file opens, and root edits the file itself, not a draft. */
  @Test
  void aFileThatCannotBeSavedIsEditedAsRoot() throws Exception {
    window.openLevelsWeb();
    Window.inWindow(
        () -> {
          window.desk().openFile(RemotePath.of(SETTINGS + "/site.conf"));
          return null;
        });
    window.until("it is said", () -> window.shownOrNull("#choice-edit-as-root") != null);
    window.press("#choice-edit-as-root");
    window.until("the password is asked", () -> window.shownOrNull("#secret") != null);
    window.fill("#secret", "heron-at-dusk");
    window.push(KeyCode.ENTER);
    window.until(
        "it is open as root",
        () ->
            window.desk() != null
                && window.desk().actsAs() != null
                && window.desk().currentProperty().get() instanceof FileModel);
    assertThat(window.desk().hasUnsaved()).isFalse();
    assertThat(window.shownOrNull("#choice-edit-as-root")).isNull();
  }
}
