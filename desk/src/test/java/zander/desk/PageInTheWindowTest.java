package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import javafx.geometry.Orientation;
import javafx.scene.control.SplitPane;
import javafx.scene.input.KeyCode;
import javafx.scene.web.WebView;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.desk.file.FileModel;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** The page of a file, beside it. */
class PageInTheWindowTest {
  private static final String SITE = "/srv/levels/site/";

  @TempDir Path folder;
  private Window window;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    window.openLevelsWeb();
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  private FileModel openPage(String name) {
    FileModel file = OpenedFile.open(window, SITE + name).model();
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.B);
    window.until("the page is beside it", () -> window.shownOrNull("#page") != null);
    return file;
  }

  /** What the page says, as its own engine has it. */
  private String page() {
    String[] said = new String[1];
    window.interact(
        () ->
            said[0] =
                String.valueOf(
                    ((WebView) window.shown("#page"))
                        .getEngine()
                        .executeScript("document.body ? document.body.innerText : ''")));
    return said[0];
  }

  private void untilState(String begins) {
    window.until(begins, () -> window.text("#page-state").startsWith(begins));
  }

  @Test
  void aSaveIsSeenInThePageAndTheKeyboardStaysInTheText() throws Exception {
    openPage("contact.html");
    untilState("200 OK");
    window.until("it is shown", () -> page().contains("Write to the wardens"));
    CodeArea editor = (CodeArea) window.shown("#editor");
    window.until("the text has the keyboard", editor::isFocused);
    window.interact(
        () -> editor.replaceText(editor.getText().replace("</body>", "<p>Ask at dusk</p></body>")));
    assertThat(page()).doesNotContain("Ask at dusk");
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("the page has it", () -> page().contains("Ask at dusk"));
    assertThat(editor.isFocused()).isTrue();
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.B);
    window.until("the page is gone", () -> window.shownOrNull("#page") == null);
    window.until("the text has the keyboard", editor::isFocused);
  }

  @Test
  void aClosedPageSaysWhyUntilItsRightsAreRight() throws Exception {
    FileModel index = openPage("index.html");
    untilState("200 OK");
    window.fill("#page-address", "alerts.html");
    window.interact(() -> window.shown("#page-address").requestFocus());
    window.push(KeyCode.ENTER);
    untilState("403 forbidden");
    window.until(
        "the log is quoted",
        () ->
            window.shown("#page-said").lookupAll(".label").stream()
                .anyMatch(
                    label ->
                        ((javafx.scene.control.Label) label)
                            .getText()
                            .matches("/var/log/levels/error\\.log: .*Permission denied.*")));
    window.world("levels-web").chmod(Caller.ROOT, SITE + "alerts.html", 0644);
    window.push(KeyCode.F9);
    untilState("200 OK");
    window.until("it is shown", () -> page().contains("Grebe Mill"));
    window.fill("#page-address", "http://fonts.riverwatch.example/");
    window.interact(() -> window.shown("#page-address").requestFocus());
    window.push(KeyCode.ENTER);
    untilState("not shown");
    window.interact(() -> window.desk().close(index));
    window.until("it goes with its file", () -> window.shownOrNull("#page") == null);
  }

  @Test
  void whatThePageAsksOfOthersIsNotContactedAndSaid() throws Exception {
    byte[] text =
        "<html><body><img src='http://count.riverwatch.example/a.svg'><p>Levels</p></body></html>"
            .getBytes(java.nio.charset.StandardCharsets.UTF_8);
    window
        .world("levels-web")
        .open(
            Caller.ROOT, SITE + "contact.html", new World.Open(false, true, false, false, true, 0))
        .write(0, text, 0, text.length);
    openPage("contact.html");
    untilState("200 OK");
    window.until(
        "it is said",
        () ->
            window.shownOrNull("#page-elsewhere") != null
                && window.text("#page-elsewhere").endsWith("count.riverwatch.example"));
    SplitPane both = (SplitPane) window.shown("#page").getScene().lookup(".page-pair");
    assertThat(both.getOrientation()).as("in a narrow place").isEqualTo(Orientation.VERTICAL);
  }
}
