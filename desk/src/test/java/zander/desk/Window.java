package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.BooleanSupplier;
import javafx.application.Platform;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Labeled;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;
import zander.desk.model.AppModel;
import zander.desk.model.DeskModel;
import zander.standin.demo.Demo;
import zander.standin.world.Caller;
import zander.standin.world.OpenFile;
import zander.standin.world.Stat;
import zander.standin.world.World;

/** The real window over the demo world, with a robot at its keys and mouse. */
final class Window extends FxRobot implements AutoCloseable {
  private static final long PATIENCE = 30;

  final AppModel model;
  final Setup setup;
  final Stage stage;

  Window(Path folder) throws Exception {
    FxToolkit.registerPrimaryStage();
    setup = Setup.demo(folder.resolve("home"));
    Stage[] made = new Stage[1];
    model =
        inWindow(
            () -> {
              made[0] = new Stage();
              return ZanderApp.open(made[0], setup);
            });
    stage = made[0];
    inWindow(
        () -> {
          stage.requestFocus();
          return null;
        });
    until("the book is shown", () -> lookup("#server-levels-web").tryQuery().isPresent());
  }

  static <T> T inWindow(Callable<T> work) throws Exception {
    return WaitForAsyncUtils.asyncFx(work).get(PATIENCE, TimeUnit.SECONDS);
  }

  /** Waits for a condition, looked at on the interface thread. */
  void until(String what, BooleanSupplier condition) {
    try {
      WaitForAsyncUtils.waitFor(
          PATIENCE, TimeUnit.SECONDS, () -> inWindow(condition::getAsBoolean));
      WaitForAsyncUtils.waitForFxEvents();
    } catch (TimeoutException e) {
      throw new AssertionError("waited in vain until " + what, e);
    }
  }

  DeskModel desk() {
    return model.currentProperty().get();
  }

  Demo demo() {
    return setup.demo();
  }

  World world(String server) {
    return demo().server(server).machine().world();
  }

  Stat stat(String path) throws Exception {
    return world("levels-web").stat(Caller.ROOT, path);
  }

  String content(String path) throws Exception {
    OpenFile file = world("levels-web").open(Caller.ROOT, path, World.Open.READ);
    return new String(file.read(0, (int) file.size()), java.nio.charset.StandardCharsets.UTF_8);
  }

  /** Presses a button that the person can see, with the mouse. */
  void press(String id) {
    until(id + " can be pressed", () -> isReady(id));
    clickOn(shown(id));
  }

  private boolean isReady(String id) {
    Node node = shownOrNull(id);
    return node != null && !node.isDisabled();
  }

  Node shown(String id) {
    Node node = shownOrNull(id);
    assertThat(node).as(id).isNotNull();
    return node;
  }

  Node shownOrNull(String id) {
    return lookup(id).queryAll().stream().filter(Window::isSeen).findFirst().orElse(null);
  }

  private static boolean isSeen(Node node) {
    for (Node at = node; at != null; at = at.getParent()) {
      if (!at.isVisible()) {
        return false;
      }
    }
    return node.getScene() != null;
  }

  /** Opens levels-web from the book and accepts its host key. */
  void openLevelsWeb() {
    press("#server-levels-web");
    press("#prompt-yes");
    until(
        "the site is listed",
        () ->
            desk() != null
                && desk().folder().rows().stream().anyMatch(e -> e.name().equals("index.html")));
  }

  /** The name cell of a row of a table, scrolled to. */
  Node cell(String table, String name) {
    TableView<?> view = (TableView<?>) shown(table);
    Node[] found = new Node[1];
    until(
        name + " is in " + table,
        () -> {
          found[0] =
              view.lookupAll(".table-cell").stream()
                  .filter(cell -> cell instanceof Labeled labeled && isNamed(labeled, name))
                  .filter(Window::isSeen)
                  .findFirst()
                  .orElse(null);
          return found[0] != null;
        });
    return found[0];
  }

  private static boolean isNamed(Labeled cell, String name) {
    return cell.getText() != null
        && (cell.getText().equals(name) || cell.getText().startsWith(name + "  →"));
  }

  void choose(String table, String... names) {
    boolean first = true;
    for (String name : names) {
      Node cell = cell(table, name);
      if (first) {
        clickAtStart(cell);
      } else {
        press(KeyCode.CONTROL);
        clickAtStart(cell);
        release(KeyCode.CONTROL);
      }
      first = false;
    }
  }

  private void clickAtStart(Node cell) {
    Bounds bounds = cell.localToScreen(cell.getBoundsInLocal());
    clickOn(bounds.getMinX() + 20, bounds.getCenterY());
  }

  void openRow(String table, String name) {
    doubleClickOn(cell(table, name));
  }

  /** Replaces what is in a field by typing. */
  void fill(String id, String text) {
    clickOn(shown(id));
    push(KeyCode.CONTROL, KeyCode.A);
    write(text);
    WaitForAsyncUtils.waitForFxEvents();
  }

  String text(String id) {
    Node node = shown(id);
    return node instanceof TextField field ? field.getText() : ((Labeled) node).getText();
  }

  boolean isOn(String box) {
    return shown(box).getStyleClass().contains("on");
  }

  Button buttonWith(String words) {
    return lookup((Node node) -> node instanceof Button b && words.equals(b.getText()) && isSeen(b))
        .queryButton();
  }

  @Override
  public void close() throws Exception {
    inWindow(
        () -> {
          stage.hide();
          model.stop();
          return null;
        });
    setup.demo().close();
    Platform.setImplicitExit(false);
  }
}
