package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;
import zander.desk.folder.action.CreateActions;

/** The demo's own sudo: warden opens a file of root's, edits it and saves it, with one question. */
class AsRootOnTheDemoTest {
  private static final String SETTINGS = "/etc/levels";
  private static final String WITHOUT = "#choice-save-without-it";

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

  private void goTo(String folder) throws Exception {
    Window.inWindow(
        () -> {
          window.desk().goTo(RemotePath.of(folder));
          return null;
        });
    window.until(
        "the folder is read", () -> RemotePath.of(folder).equals(window.desk().folder().path()));
  }

  @Test
  void aFileOfRootIsEditedAndKeepsOwnerAndMode() throws Exception {
    window.openLevelsWeb();
    goTo(SETTINGS);
    window.press("#as-root");
    window.giveThePassword("root");
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

  /** A second name and an access control list stay, as it is written into the same file. */
  @Test
  void whatIsAttachedToAFileStaysWithIt() throws Exception {
    window.openLevelsWeb();
    goTo("/srv/levels");
    window.press("#as-root");
    window.giveThePassword("root");
    saveWithALine("/srv/levels/feeds/latest.xml");
    assertThat(window.content("/srv/levels/feeds/feed.xml")).startsWith("# seen ");
    assertThat(window.stat("/srv/levels/feeds/feed.xml").links()).isEqualTo(2);
    saveWithALine("/srv/levels/site/tide-chart.js");
    assertThat(window.stat("/srv/levels/site/tide-chart.js").list().users())
        .containsExactly(Map.entry(1003, 6));
  }

  private void saveWithALine(String path) throws Exception {
    Window.inWindow(
        () -> {
          window.desk().openFile(RemotePath.of(path));
          return null;
        });
    window.until(
        path + " is open",
        () ->
            window.desk().currentProperty().get() instanceof FileModel file
                && RemotePath.of(path).equals(file.path())
                && window.shownOrNull("#editor") != null);
    FileModel file = (FileModel) window.desk().currentProperty().get();
    window.clickOn(window.shown("#editor"));
    window.push(KeyCode.CONTROL, KeyCode.HOME);
    window.write("# seen ");
    window.push(KeyCode.CONTROL, KeyCode.S);
    if (path.endsWith(".xml")) {
      window.until("a check is suggested", () -> window.shownOrNull(WITHOUT) != null);
      window.press(WITHOUT);
    }
    window.until("it is saved", () -> !window.desk().hasUnsaved());
    window.until(
        "it is told", () -> file.stateProperty().get().contains("written into the same file"));
  }

  /** Only root gives a file to another account; then the site's own account may read it. */
  @Test
  void aPageOfRootIsGivenToTheSitesAccount() throws Exception {
    String page = "/srv/levels/site/alerts.html";
    window.openLevelsWeb();
    window.press("#as-root");
    window.giveThePassword("root");
    window.until("it is read", () -> window.rows().contains("alerts.html"));
    window.choose("#server-table", "alerts.html");
    window.until("the panel shows it", () -> window.text("#octal").equals("0640"));
    window.fill("#owner", "web");
    window.press("#set-rights");
    window.until("it is web's", () -> uidOf(page) == 33);
    assertThat(window.stat(page).mode()).isEqualTo(0640);
    window.press("#stop-acting");
    window.until("the right has ended", () -> window.model.desks().size() == 1);
  }

  private int uidOf(String path) {
    try {
      return window.stat(path).uid();
    } catch (Exception e) {
      throw new AssertionError(e);
    }
  }

  /** The account that serves the site is offered; what is made there is its own. */
  @Test
  void anotherAccountThanRootIsActedAs() throws Exception {
    window.openLevelsWeb();
    goTo("/srv/levels/site/uploads");
    window.push(KeyCode.CONTROL, KeyCode.G);
    window.until("actions are found", () -> window.shownOrNull("#goto-field") != null);
    window.write("act as another");
    window.push(KeyCode.ENTER);
    window.until("the account is asked", () -> window.shownOrNull("#strip-name") != null);
    window.fill("#strip-name", "no such/name");
    window.press("#choice-act-as-it");
    window.until("it is told", () -> window.shownOrNull("#choice-close") != null);
    Window.inWindow(
        () -> {
          window.desk().actAs("web", window.desk().folderInFront(), other -> {});
          return null;
        });
    window.giveThePassword("web");
    window.until("it is read", () -> window.rows().contains("photo-001.svg"));
    assertThat(window.desk().whoAmI().uid()).isEqualTo(33);
    Window.inWindow(
        () -> {
          new CreateActions(window.desk().folder()).newFolder();
          return null;
        });
    window.answer("create", "2026");
    window.until("it is made", () -> window.exists("/srv/levels/site/uploads/2026"));
    assertThat(uidOf("/srv/levels/site/uploads/2026")).isEqualTo(33);
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
    window.giveThePassword("root");
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
