package zander.desk;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.nio.file.Path;
import javafx.scene.input.KeyCode;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;
import zander.desk.reading.ReadingModel;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** The pictures of the editor; see {@link Screenshots}. */
class EditorScreenshots {
  private static final String STYLE = "/srv/levels/site/water.css";

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

  private CodeArea open(String path) throws Exception {
    Window.inWindow(
        () -> {
          window.desk().openFile(RemotePath.of(path));
          return null;
        });
    window.until("it is open", () -> window.desk().currentProperty().get() instanceof FileModel);
    window.until("it is shown", () -> window.shownOrNull("#editor") != null);
    return (CodeArea) window.shown("#editor");
  }

  @Test
  void findingAndReplacing() throws Exception {
    CodeArea editor = open(STYLE);
    window.interact(() -> editor.moveTo(2, 0));
    window.push(KeyCode.END);
    window.push(KeyCode.ENTER);
    window.write("--shallow: #7fb8a4;");
    window.push(KeyCode.CONTROL, KeyCode.HOME);
    window.push(KeyCode.CONTROL, KeyCode.H);
    window.fill("#file-find", "deep");
    window.fill("#file-replacement", "river");
    window.clickOn("#file-find");
    window.push(KeyCode.ENTER);
    window.until("one is gone to", () -> window.text("#file-find-count").contains(" of "));
    window.moveTo(window.shown("#file-find-count"));
    Screenshots.keep(window, "editor");
  }

  @Test
  void thePageBeside() throws Exception {
    CodeArea editor = open("/srv/levels/site/contact.html");
    window.interact(
        () ->
            editor.replaceText(
                editor
                    .getText()
                    .replace("</head>", "<link rel=\"stylesheet\" href=\"water.css\"></head>")
                    .replace("</body>", "  <p><a href=\"map.html\">Map</a></p>\n</body>")));
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.B);
    window.until("it is there", () -> window.text("#page-state").startsWith("200"));
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until(
        "the page has it",
        () ->
            String.valueOf(
                    ((javafx.scene.web.WebView) window.shown("#page"))
                        .getEngine()
                        .executeScript("document.body ? document.body.innerText : ''"))
                .contains("Map"));
    window.until(
        "its link is looked at",
        () ->
            !((FileModel) window.desk().currentProperty().get())
                .links()
                .deadProperty()
                .get()
                .isEmpty());
    Screenshots.keep(window, "page-beside");
  }

  @Test
  void versionsSideBySide() throws Exception {
    CodeArea editor = open("/srv/levels/site/index.html");
    window.interact(
        () -> {
          String text = editor.getText().replace("Levels today", "Levels of today");
          String fewer = text.replaceFirst("(?m)^.*Brack Weir.*\\n", "");
          editor.replaceText(
              fewer.replace("</body>", "  <p>Read each morning at seven.</p>\n</body>"));
        });
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.E);
    window.until("it is shown", () -> window.text("#compare-outcome").startsWith("Change 1"));
    window.push(KeyCode.F8);
    Screenshots.keep(window, "editor-versions");
  }

  @Test
  void mergingAnothersChange() throws Exception {
    CodeArea editor = open(STYLE);
    String text = editor.getText();
    String line = text.lines().filter(it -> it.contains("--")).findFirst().orElseThrow();
    String name = line.substring(0, line.indexOf(':') + 1);
    window.interact(() -> editor.replaceText(text.replace(line, name + " #0d3b46;")));
    byte[] theirs = text.replace(line, name + " #14505c;").getBytes(UTF_8);
    window
        .world("levels-web")
        .open(Caller.ROOT, STYLE, new World.Open(false, true, false, false, true, 0))
        .write(0, theirs, 0, theirs.length);
    window.press("#choice-merge-both");
    window.until("it is asked", () -> window.shownOrNull("#choice-take-mine") != null);
    Screenshots.keep(window, "editor-merge");
  }

  @Test
  void aCheckThatRefuses() throws Exception {
    Window.inWindow(
        () -> {
          window.desk().actAsRoot(RemotePath.of("/etc/levels"), desk -> {});
          return null;
        });
    window.until("the password is asked", () -> window.shownOrNull("#secret") != null);
    window.fill("#secret", "heron-at-dusk");
    window.push(KeyCode.ENTER);
    window.until("it is done as root", () -> window.shownOrNull("#stop-acting") != null);
    CodeArea editor = open("/etc/levels/site.conf");
    FileModel file = (FileModel) window.desk().currentProperty().get();
    window.interact(file::askForRules);
    window.until("a command is asked", () -> window.shownOrNull("#rules-check") != null);
    window.fill("#rules-check", "levelsd --check {file}");
    window.press("#choice-keep");
    window.interact(() -> editor.replaceText(editor.getText().replace("300;", "600")));
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is refused", () -> window.shownOrNull("#choice-change-the-check-") != null);
    Screenshots.keep(window, "editor-check");
  }

  @Test
  void aFollowedLog() throws Exception {
    StringBuilder content = new StringBuilder();
    for (int i = 0; i < 80_000; i++) {
      content.append(ReadingInTheWindowTest.line(i));
    }
    byte[] bytes = content.toString().getBytes(UTF_8);
    window
        .world("levels-web")
        .open(
            Caller.ROOT,
            ReadingInTheWindowTest.LOG,
            new World.Open(false, true, true, false, false, 0644))
        .write(0, bytes, 0, bytes.length);
    Window.inWindow(
        () -> {
          ReadingModel.show(window.desk(), RemotePath.of(ReadingInTheWindowTest.LOG));
          return null;
        });
    window.until("it is open", () -> window.text("#reading-state").equals("following"));
    window.clickOn("#reading");
    window.push(KeyCode.CONTROL, KeyCode.F);
    window.fill("#reading-find", "station-12");
    window.push(KeyCode.ENTER);
    CodeArea area = (CodeArea) window.shown("#reading");
    window.until("it is found", () -> area.getSelectedText().equals("station-12"));
    Screenshots.keep(window, "log-followed");
  }
}
