package zander.suite.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.web.WebView;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.book.MarkedFolder;
import zander.core.book.ServerEntry;
import zander.core.book.SignIn;
import zander.core.connect.address.ServerAddress;
import zander.core.files.RemotePath;
import zander.core.page.PageRoutes.Way;
import zander.desk.file.FileModel;
import zander.desk.model.DeskModel;
import zander.desk.work.Settings;
import zander.suite.NginxOfTheTest;
import zander.suite.SystemSshd;

/**
 * The page beside a file, of a site that the system's own nginx serves on the server's loopback.
 */
@Timeout(180)
class PageBesideTest {
  private static final String SITE = "levels.riverwatch.example";

  @TempDir Path folder;
  private SystemSshd server;
  private NginxOfTheTest nginx;
  private OffscreenWindow window;
  private Path www;

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    Assumptions.assumeTrue(NginxOfTheTest.isPossible(), "needs nginx-light");
    server = new SystemSshd(folder, List.of(), List.of());
    nginx = new NginxOfTheTest(folder);
    www = Files.createDirectories(folder.resolve("www"));
    Files.writeString(www.resolve("water.css"), "h1 { color: rgb(1, 2, 3) }\n");
    Files.writeString(
        www.resolve("index.html"), "<link rel=stylesheet href=water.css>\n<h1>Levels today</h1>\n");
    window = new OffscreenWindow(folder.resolve("here"), server);
  }

  @AfterEach
  void stop() throws Exception {
    if (window != null) {
      window.close();
      nginx.close();
      server.close();
    }
  }

  private DeskModel open(int port) throws Exception {
    String origin = "http://" + SITE + ":" + port;
    window.run(
        () ->
            window
                .model
                .settings()
                .set(Settings.PAGE_WAYS, java.util.Map.of(origin, Way.ON_SERVER.name())));
    return window.open(
        ServerEntry.of(
                "levels-web",
                new ServerAddress("root", "127.0.0.1", server.port()),
                SignIn.byKey(server.keyFile().toString()))
            .withPlaces(www.toString(), window.home().toString(), null)
            .withFolders(List.of(MarkedFolder.of("Site", www.toString(), null, origin))));
  }

  private FileModel openFile(DeskModel desk, String name) throws Exception {
    window.run(() -> desk.openFile(RemotePath.of(www.resolve(name).toString())));
    window.until(
        name + " is open",
        () ->
            desk.currentProperty().get() instanceof FileModel file
                && file.path().name().equals(name)
                && window.scene().lookup("#editor") != null);
    return (FileModel) window.on(() -> desk.currentProperty().get());
  }

  private void press(KeyCode code, boolean control, boolean shift) throws Exception {
    window.run(
        () ->
            window
                .scene()
                .lookup("#editor")
                .fireEvent(
                    new KeyEvent(
                        KeyEvent.KEY_PRESSED, "", "", code, shift, control, false, false)));
  }

  /** Nothing while the page is not there yet. */
  private Object script(String text) {
    WebView page = (WebView) window.scene().lookup("#page");
    try {
      return page == null ? null : page.getEngine().executeScript(text);
    } catch (netscape.javascript.JSException e) {
      return null;
    }
  }

  @Test
  void whatIsSavedIsSeenAsVisitorsSeeIt() throws Exception {
    DeskModel desk = open(nginx.serve(SITE, www, folder.resolve("errors")));
    FileModel index = openFile(desk, "index.html");
    press(KeyCode.B, true, true);
    window.until(
        "the page is there",
        () -> String.valueOf(script("document.body.innerText")).contains("Levels today"));
    window.until(
        "with its style",
        () ->
            "rgb(1, 2, 3)".equals(script("getComputedStyle(document.querySelector('h1')).color")));
    window.run(
        () -> {
          CodeArea editor = (CodeArea) window.scene().lookup("#editor");
          editor.replaceText(editor.getText().replace("today", "this evening"));
        });
    window.run(index::save);
    window.until(
        "the page has it",
        () -> String.valueOf(script("document.body.innerText")).contains("Levels this evening"));
    // A style sheet has no page of its own to be seen by.
    FileModel style = openFile(desk, "water.css");
    window.run(() -> style.putIn("h1 { color: rgb(4, 5, 6) }\n"));
    window.until("it is typed", style::isUnsaved);
    window.run(style::save);
    window.until("it is saved", () -> !style.isUnsaved());
    window.run(() -> desk.currentProperty().set(index));
    press(KeyCode.F9, false, false);
    window.until(
        "the page has the new style",
        () ->
            "rgb(4, 5, 6)".equals(script("getComputedStyle(document.querySelector('h1')).color")));
    Files.delete(www.resolve("index.html"));
    press(KeyCode.F9, false, false);
    window.until(
        "it is said that it is gone",
        () ->
            window.scene().lookup("#page-state") instanceof Labeled state
                && state.getText().startsWith("404"));
    assertThat(desk.line().awayProperty().get()).isFalse();
  }
}
