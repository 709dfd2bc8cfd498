package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.stream.Stream;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.Scene;
import javafx.scene.control.Labeled;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Region;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.view.part.RelativeTimes;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** What a person sees of the folder in front without doing anything, and where the keyboard is. */
class FrontOfTheWindowTest {
  private static final String SITE = "/srv/levels/site";

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

  private boolean shows(String table, String words) {
    return Stream.of(".label", ".table-cell")
        .flatMap(kind -> window.shown(table).lookupAll(kind).stream())
        .anyMatch(node -> Window.isSeen(node) && words.equals(((Labeled) node).getText()));
  }

  @Test
  void whatComesToTheFrontHasTheKeyboard() throws Exception {
    window.openLevelsWeb();
    window.openRow("#server-table", "robots.txt");
    Scene scene = window.targetWindow().getScene();
    window.until("the file has it", () -> scene.getFocusOwner() instanceof CodeArea);
    window.write("# ");
    window.until(
        "it was typed", () -> ((CodeArea) scene.getFocusOwner()).getText().startsWith("# "));
    window.push(KeyCode.CONTROL, KeyCode.PAGE_UP);
    window.until("the folder has it", () -> "server-table".equals(scene.getFocusOwner().getId()));
    window.push(KeyCode.ALT, KeyCode.J);
    window.until("the journal has it", () -> "journal-table".equals(scene.getFocusOwner().getId()));
    window.push(KeyCode.CONTROL, KeyCode.W);
    window.until("the folder again", () -> "server-table".equals(scene.getFocusOwner().getId()));
  }

  @Test
  void whatOthersDoIsSeenAndMarked() throws Exception {
    window.openLevelsWeb();
    window
        .world("levels-web")
        .open(
            Caller.ROOT, SITE + "/by-night", new World.Open(false, true, true, true, false, 0644));
    window.until("it is seen", () -> window.rows().contains("by-night"));
    assertThat(window.desk().folder().markedProperty().get())
        .containsExactly(RemotePath.of(SITE + "/by-night"));

    // Through a link it is the folder's time that counts, not that of the link.
    window.world("levels-web").symlink(Caller.ROOT, SITE, "/srv/levels/current");
    Window.inWindow(
        () -> {
          window.desk().folder().go(RemotePath.of("/srv/levels/current"));
          return null;
        });
    window.until("it is read", () -> window.desk().folder().path().name().equals("current"));
    window
        .world("levels-web")
        .open(Caller.ROOT, SITE + "/by-day", new World.Open(false, true, true, true, false, 0644));
    window.until("it is seen too", () -> window.rows().contains("by-day"));
  }

  @Test
  void timesGoOnAndEmptyFoldersSayWhy() throws Exception {
    window.openLevelsWeb();
    window
        .world("levels-web")
        .open(Caller.ROOT, SITE + "/new", new World.Open(false, true, true, true, false, 0644));
    window.clickOn(window.cell("#server-table", "img"));
    window.push(KeyCode.F5);
    window.until("it is new", () -> shows("#server-table", "just now"));
    try {
      Window.inWindow(
          () -> {
            RelativeTimes.setClock(Clock.offset(Clock.systemDefaultZone(), Duration.ofMinutes(31)));
            return null;
          });
      window.until("time went on", () -> shows("#server-table", "31 min ago"));
      assertThat(shows("#server-table", "just now")).isFalse();
    } finally {
      Window.inWindow(
          () -> {
            RelativeTimes.setClock(Clock.systemDefaultZone());
            return null;
          });
    }

    Path here = Files.createDirectory(folder.resolve("drafts"));
    Window.inWindow(
        () -> {
          window.desk().local().go(here);
          return null;
        });
    window.until(
        "it is empty",
        () ->
            shows("#local-table", "This folder is empty. Select files above and bring them down."));
    Files.writeString(here.resolve(".levels"), "1");
    Window.inWindow(
        () -> {
          window.desk().local().refresh();
          return null;
        });
    window.until(
        "it says so",
        () -> shows("#local-table", "Only hidden files are here. Show them with Ctrl+H."));
  }

  private List<String> headings() {
    return ((TableView<?>) window.shown("#server-table"))
        .getVisibleLeafColumns().stream().map(TableColumn::getText).toList();
  }

  private void resize(double width, double height) throws Exception {
    Window.inWindow(
        () -> {
          window.stage.setWidth(width);
          window.stage.setHeight(height);
          return null;
        });
  }

  private double waterline() {
    Node button = window.shown("#send-up");
    return button.localToScene(button.getBoundsInLocal()).getMinY();
  }

  @Test
  void theWaterlineStaysWhereItIs() throws Exception {
    window.openLevelsWeb();
    window.until("all is there", () -> window.text("#folder-facts").contains("entries"));
    double at = waterline();
    window.put("#narrow", "owner:root changed:<1y");
    window.until("it is explained", () -> window.shownOrNull("#explained") != null);
    assertThat(waterline()).isEqualTo(at);
    window.put("#narrow", "");
    window.openRow("#server-table", "index.html");
    window.until("the editor is open", () -> window.shownOrNull("#editor") != null);
    // The space is the text's, unless the person wants this computer beside it; then from now on.
    window.until("it is below the text", () -> waterline() > at + 100);
    window.push(KeyCode.CONTROL, KeyCode.M);
    window.until("it is where it was", () -> waterline() == at);
    window.push(KeyCode.CONTROL, KeyCode.PAGE_UP);
    window.until("the folder is in front", () -> window.shownOrNull("#editor") == null);
    assertThat(waterline()).isEqualTo(at);
    window.until("it is remembered", () -> window.kept("\"localFoldedByText\" : false"));
  }

  /** The panel first, and where it is opened the marked folders, then columns. */
  @Test
  void aNarrowWindowFoldsWhatIsLessNeededAndBringsItBack() throws Exception {
    window.openLevelsWeb();
    window.until("all are there", () -> headings().contains("Group") && isShown(".panel", ".side"));
    resize(1000, 640);
    window.until("the panel is folded", () -> !isShown(".panel"));
    assertThat(isShown(".side")).isTrue();
    window.push(KeyCode.CONTROL, KeyCode.I);
    window.until("it is opened", () -> isShown(".panel", ".side"));
    assertThat(outside()).isEmpty();
    resize(900, 600);
    window.until("the marked folders make room", () -> !isShown(".side"));
    window.until("the group is left out", () -> !headings().contains("Group"));
    assertThat(headings()).contains("Name", "Mode", "Notes");
    assertThat(isShown(".panel")).isTrue();
    assertThat(outside()).isEmpty();
    window.picture("narrow-window");
    window.until("it is remembered", () -> window.kept("\"panelFoldedNarrow\" : false"));
    resize(1280, 800);
    window.until("all are there again", () -> headings().contains("Group") && isShown(".side"));
    assertThat(isShown(".panel")).isTrue();
  }

  private boolean isShown(String... parts) {
    return Stream.of(parts).allMatch(part -> window.shownOrNull(part) != null);
  }

  /** What is seen in part only, as the window is too narrow for it. */
  private List<Node> outside() throws Exception {
    return Window.inWindow(
        () ->
            window.lookup((Node node) -> Window.isSeen(node)).queryAll().stream()
                .filter(node -> node instanceof Region)
                .filter(
                    node -> {
                      Bounds seen = node.localToScene(node.getLayoutBounds());
                      return seen.getMinX() < -1
                          || seen.getMaxX() > window.stage.getScene().getWidth() + 1;
                    })
                .toList());
  }
}
