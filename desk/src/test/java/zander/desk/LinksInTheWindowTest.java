package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Set;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.MenuItem;
import javafx.scene.input.KeyCode;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.desk.file.FileModel;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** Links of a page to other files: those that lead nowhere, and those that are being typed. */
class LinksInTheWindowTest {
  private static final String SITE = "/srv/levels/site/";
  private static final String TEXT =
      """
      <link href="water.css"> <img src='/img/gauge-001.svg'> <a href="stations/">all</a>
      <a href="gone.html?day=2"> <a href="/img/no%20such.svg"> <a href="old-map.html">
      <a href="h%C3%B6he.html"> <a href="/höhe.html"> <a href="höhe.html">
      <a href="https://gauges.riverwatch.example/"> <a href="#top"> <a href="alerts.html">
      <p></p>
      """;

  @TempDir Path folder;
  private Window window;
  private FileModel file;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    window.openLevelsWeb();
    window
        .world("levels-web")
        .open(
            Caller.ROOT,
            WireName.fromText(SITE + "höhe.html"),
            new World.Open(false, true, true, false, false, 0644));
    byte[] text = TEXT.getBytes(StandardCharsets.UTF_8);
    window
        .world("levels-web")
        .open(
            Caller.ROOT, SITE + "contact.html", new World.Open(false, true, false, false, true, 0))
        .write(0, text, 0, text.length);
    file = OpenedFile.open(window, SITE + "contact.html").model();
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  private CodeArea editor() {
    return (CodeArea) window.shown("#editor");
  }

  /** What the menu beside the cursor has. */
  private static List<String> offered() {
    return javafx.stage.Window.getWindows().stream()
        .filter(shown -> shown instanceof ContextMenu menu && "link-menu".equals(menu.getId()))
        .flatMap(shown -> ((ContextMenu) shown).getItems().stream())
        .map(MenuItem::getText)
        .toList();
  }

  @Test
  void linksThatLeadNowhereAreMarkedAndNoOthers() throws Exception {
    window.until(
        "they are known",
        () ->
            file.links()
                .deadProperty()
                .get()
                .equals(Set.of("gone.html?day=2", "/img/no%20such.svg", "old-map.html")));
    assertThat(file.facts()).contains("3 dead links");
    int at = TEXT.indexOf("gone") - TEXT.indexOf('\n') - 1;
    window.until("it is marked", () -> editor().getStyleOfChar(1, at).contains("dead-link"));
    assertThat(editor().getStyleOfChar(0, 13)).doesNotContain("dead-link");
    window.interact(
        () -> editor().replaceText(editor().getText().replace("gone.html", "index.html")));
    window.until("one is mended", () -> file.links().deadProperty().get().size() == 2);
    window.interact(() -> window.desk().goTo(RemotePath.of("/srv/levels/site/img")));
    window.world("levels-web").mkdir(Caller.ROOT, "/srv/levels/archive", 0755);
    window
        .world("levels-web")
        .open(
            Caller.ROOT,
            "/srv/levels/archive/map.html",
            new World.Open(false, true, true, false, false, 0644));
    window.interact(() -> window.desk().currentProperty().set(file));
    window.until("another leads somewhere", () -> file.links().deadProperty().get().size() == 1);
  }

  @Test
  void aPathThatIsTypedIsCompletedFromTheServerAndGoneTo() {
    CodeArea editor = editor();
    window.interact(() -> editor.moveTo(4, 3));
    window.write("<a href=\"sta");
    window.push(KeyCode.CONTROL, KeyCode.SPACE);
    window.until("folders are offered", () -> offered().contains("stations/"));
    window.push(KeyCode.ENTER);
    window.until("what is in it is offered", () -> offered().contains("stations/station-001.html"));
    window.write("station-12");
    window.until(
        "what fits",
        () -> offered().size() == 7 && offered().get(0).equals("stations/station-120.html"));
    // The first, without going to it.
    window.push(KeyCode.ENTER);
    window.until(
        "it is typed",
        () -> editor.getParagraph(4).getText().contains("\"stations/station-120.html"));
    window.push(KeyCode.CONTROL, KeyCode.ENTER);
    window.until(
        "it is open",
        () ->
            window.desk().currentProperty().get() instanceof FileModel other
                && other.path().name().equals("station-120.html"));
  }
}
