package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TableView;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;

/** What a person drags or folds stays so, and is written down for the next time. */
class EdgesInTheWindowTest {
  @TempDir Path folder;

  private static double width(Window window, String id) throws Exception {
    return Window.inWindow(() -> window.lookup(id).query().getBoundsInParent().getWidth());
  }

  private static double localHeight(Window window) throws Exception {
    Node table = window.shown("#local-table");
    return Window.inWindow(
        () -> window.stage.getScene().getHeight() - table.localToScene(0, 0).getY());
  }

  private static void drag(Window window, Node node, double right, double down) {
    Bounds on = node.localToScreen(node.getBoundsInLocal());
    double x = on.getMinX() + Math.min(on.getWidth() / 2, 800);
    double y = on.getCenterY();
    window
        .moveTo(x, y)
        .press(MouseButton.PRIMARY)
        .moveBy(right / 2, down / 2)
        .moveBy(right / 2, down / 2)
        .release(MouseButton.PRIMARY);
  }

  @Test
  void thePanelAndThisComputerKeepWhatTheyWereGiven() throws Exception {
    try (Window window = new Window(folder)) {
      window.openLevelsWeb();
      window.until("the panel is there", () -> window.shownOrNull("#panel-edge") != null);
      assertThat(width(window, ".panel")).isEqualTo(288);
      drag(window, window.shown("#panel-edge"), -100, 0);
      window.until("it is wider", () -> isWide(window, 388));
      double before = localHeight(window);
      drag(window, window.shown(".waterline"), 0, -60);
      window.until("this computer is higher", () -> isHigher(window, before + 40));
      window.push(KeyCode.CONTROL, KeyCode.I);
      window.until("the panel is folded", () -> window.shownOrNull(".panel") == null);
      window.until(
          "it is written down",
          () -> window.kept("\"panelFolded\" : true", "\"panelWidth\" : 388", "localHeight"));
      window.doubleClickOn("#panel-edge");
      window.until("the panel is back", () -> isWide(window, 388));
      window.push(KeyCode.CONTROL, KeyCode.I);
      window.press("#panel-handle");
      window.until("it is back again", () -> isWide(window, 388));
      assertThat(window.shownOrNull("#panel-handle")).isNull();
      window.push(KeyCode.CONTROL, KeyCode.M);
      window.until("this computer is folded", () -> window.shownOrNull("#local-table") == null);
      window.push(KeyCode.CONTROL, KeyCode.M);
      window.until("it is as high as before", () -> isHigher(window, before + 40));
    }
  }

  private static boolean isWide(Window window, double pixels) {
    Node panel = window.shownOrNull(".panel");
    return panel != null && Math.abs(panel.getBoundsInParent().getWidth() - pixels) < 3;
  }

  private static boolean isHigher(Window window, double pixels) {
    Node table = window.shownOrNull("#local-table");
    return window.stage.getScene().getHeight() - table.localToScene(0, 0).getY() > pixels;
  }

  @Test
  void aColumnKeepsItsWidthInFoldersOfItsKind() throws Exception {
    try (Window window = new Window(folder)) {
      window.openLevelsWeb();
      double usual = owner(window).getWidth();
      Window.inWindow(
          () ->
              ((TableView<?>) window.shown("#server-table")).resizeColumn(cast(owner(window)), 31));
      window.until("it is wider", () -> owner(window).getWidth() == usual + 31);
      go(window, "/srv/levels/site/stations");
      window.until("it is as wide below", () -> owner(window).getWidth() == usual + 31);
      go(window, "/var/log/levels");
      window.until("elsewhere it fits", () -> owner(window).getWidth() != usual + 31);
      go(window, "/srv/levels/site");
      window.until("it is wide again", () -> owner(window).getWidth() == usual + 31);
    }
  }

  private static void go(Window window, String path) throws Exception {
    Window.inWindow(
        () -> {
          window.desk().folder().go(RemotePath.of(path));
          return null;
        });
    window.until(
        "the folder is shown", () -> window.desk().folder().path().equals(RemotePath.of(path)));
  }

  private static TableColumn<?, ?> owner(Window window) {
    return ((TableView<?>) window.shown("#server-table"))
        .getColumns().stream()
            .filter(column -> column.getText().equals("Owner"))
            .findFirst()
            .orElseThrow();
  }

  @SuppressWarnings("unchecked")
  private static <S> TableColumn<S, ?> cast(TableColumn<?, ?> column) {
    return (TableColumn<S, ?>) column;
  }
}
