package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.awt.image.BufferedImage;
import java.lang.Thread.UncaughtExceptionHandler;
import java.nio.channels.ShutdownChannelGroupException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.BooleanSupplier;
import javafx.application.Platform;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Labeled;
import javafx.scene.control.TableView;
import javafx.scene.control.TextField;
import javafx.scene.image.PixelFormat;
import javafx.scene.image.WritableImage;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import javax.imageio.ImageIO;
import org.testfx.api.FxRobot;
import org.testfx.api.FxToolkit;
import org.testfx.util.WaitForAsyncUtils;
import zander.core.files.RemoteEntry;
import zander.desk.model.AppModel;
import zander.desk.model.DeskModel;
import zander.desk.shell.ShellModel;
import zander.standin.demo.Demo;
import zander.standin.world.Caller;
import zander.standin.world.OpenFile;
import zander.standin.world.Stat;
import zander.standin.world.World;

/** The real window over the demo world, with a robot at its keys and mouse. */
public final class Window extends FxRobot implements AutoCloseable {
  private static final long PATIENCE = 30;

  static {
    // It keeps what no thread catches, and throws it into the test that runs by then.
    WaitForAsyncUtils.clearExceptions();
    UncaughtExceptionHandler kept = Thread.getDefaultUncaughtExceptionHandler();
    Thread.setDefaultUncaughtExceptionHandler(
        (thread, thrown) -> {
          if (kept != null && !isAfterTheEnd(thrown)) {
            kept.uncaughtException(thread, thrown);
          }
        });
    endAtOnce();
  }

  /**
   * Ends the process as soon as all is told to whoever runs the tests, before the toolkit's
   * libraries take themselves down: one was aborted at that moment, and nobody waits for that.
   */
  private static void endAtOnce() {
    Runtime.getRuntime().addShutdownHook(new Thread(() -> Runtime.getRuntime().halt(0)));
  }

  /**
   * The last bytes of a line whose client or server was closed meanwhile: the system tells them to
   * the library, whose threads are gone. Nobody waits for them.
   */
  private static boolean isAfterTheEnd(Throwable thrown) {
    // The library's own executor refuses the bytes, or the socket group that is shut down.
    boolean refused =
        Arrays.stream(thrown.getStackTrace())
            .anyMatch(frame -> frame.getClassName().endsWith(".NoCloseExecutor"));
    return thrown instanceof ShutdownChannelGroupException
        || (thrown instanceof IllegalStateException && refused);
  }

  public final AppModel model;
  public final Setup setup;
  public final Stage stage;

  public Window(Path folder) throws Exception {
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

  public static <T> T inWindow(Callable<T> work) throws Exception {
    return WaitForAsyncUtils.asyncFx(work).get(PATIENCE, TimeUnit.SECONDS);
  }

  /** Waits for a condition, looked at on the interface thread. */
  public void until(String what, BooleanSupplier condition) {
    Condition asked = new Condition(condition);
    try {
      WaitForAsyncUtils.waitFor(PATIENCE, TimeUnit.SECONDS, () -> inWindow(asked));
      WaitForAsyncUtils.waitForFxEvents();
    } catch (TimeoutException e) {
      throw asked.inVain(what + "; see " + picture("failure"), e);
    }
  }

  /** Whether all of these are in the file of what was chosen. */
  public boolean kept(String... names) {
    Path file = setup.places().state().resolve("settings.json");
    try {
      String text = Files.exists(file) ? Files.readString(file) : "";
      return Arrays.stream(names).allMatch(text::contains);
    } catch (java.io.IOException e) {
      return false;
    }
  }

  /** Takes a picture of the window as it is. */
  public Path picture(String name) {
    Path file = Path.of("target", "pictures", name + ".png");
    try {
      Files.createDirectories(file.getParent());
      WritableImage image = inWindow(() -> stage.getScene().snapshot(null));
      int width = (int) image.getWidth();
      int height = (int) image.getHeight();
      int[] pixels = new int[width * height];
      image
          .getPixelReader()
          .getPixels(0, 0, width, height, PixelFormat.getIntArgbInstance(), pixels, 0, width);
      BufferedImage copy = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
      copy.setRGB(0, 0, width, height, pixels, 0, width);
      ImageIO.write(copy, "png", file.toFile());
    } catch (Exception e) {
      throw new IllegalStateException(e);
    }
    return file;
  }

  public DeskModel desk() {
    return model.currentProperty().get();
  }

  public Demo demo() {
    return setup.demo();
  }

  public World world(String server) {
    return demo().server(server).machine().world();
  }

  public Stat stat(String path) throws Exception {
    return world("levels-web").stat(Caller.ROOT, path);
  }

  public String content(String path) throws Exception {
    OpenFile file = world("levels-web").open(Caller.ROOT, path, World.Open.READ);
    return new String(file.read(0, (int) file.size()), java.nio.charset.StandardCharsets.UTF_8);
  }

  /** Opens a shell below the sheets by its key. */
  public ShellModel openShell() {
    push(KeyCode.CONTROL, KeyCode.J);
    until("the shell is open", () -> shownOrNull("#terminal") != null);
    return desk().sheets().stream()
        .filter(ShellModel.class::isInstance)
        .map(ShellModel.class::cast)
        .findFirst()
        .orElseThrow();
  }

  /** Presses a button that the person can see, with the mouse. */
  public void press(String id) {
    until(id + " can be pressed", () -> isReady(id));
    clickOn(shown(id));
  }

  private boolean isReady(String id) {
    Node node = shownOrNull(id);
    return node != null && !node.isDisabled();
  }

  public Node shown(String id) {
    Node node = shownOrNull(id);
    assertThat(node).as(id).isNotNull();
    return node;
  }

  public Node shownOrNull(String id) {
    return lookup(id).queryAll().stream().filter(Window::isSeen).findFirst().orElse(null);
  }

  public static boolean isSeen(Node node) {
    for (Node at = node; at != null; at = at.getParent()) {
      if (!at.isVisible()) {
        return false;
      }
    }
    return node.getScene() != null;
  }

  /** Opens levels-web from the book and accepts its host key. */
  public void openLevelsWeb() {
    openServer("levels-web");
    press("#prompt-yes");
    until(
        "the site is listed",
        () ->
            desk() != null
                && desk().folder().rows().stream().anyMatch(e -> e.name().equals("index.html"))
                && shownOrNull("#local-table") != null);
  }

  /** Chooses a server in the book and opens it. */
  public void openServer(String name) {
    press("#server-" + name);
    until(
        name + " is chosen",
        () -> model.book().selectedProperty().get().entry().name().equals(name));
    press("#open-entry");
  }

  /** The name cell of a row of a table, scrolled to. */
  public Node cell(String table, String name) {
    TableView<?> view = (TableView<?>) shown(table);
    Node[] found = new Node[1];
    Bounds[] last = new Bounds[1];
    until(name + " is listed", () -> indexOf(view, name) >= 0);
    interact(() -> view.scrollTo(Math.max(0, indexOf(view, name) - 2)));
    awaitPulses();
    until(
        name + " is in " + table,
        () -> {
          found[0] =
              view.lookupAll(".table-cell").stream()
                  .filter(cell -> cell instanceof Labeled labeled && isNamed(labeled, name))
                  .filter(Window::isSeen)
                  .findFirst()
                  .orElse(null);
          // Twice in the same place: a row on its way would be clicked beside.
          Bounds now =
              found[0] == null ? null : found[0].localToScreen(found[0].getBoundsInLocal());
          boolean still = now != null && now.equals(last[0]);
          last[0] = now;
          return still;
        });
    return found[0];
  }

  /** Waits until the window was laid out some times, so that what moves has come to rest. */
  private void awaitPulses() {
    AtomicInteger pulses = new AtomicInteger();
    Runnable count = pulses::incrementAndGet;
    interact(() -> stage.getScene().addPostLayoutPulseListener(count));
    until(
        "the window is laid out",
        () -> {
          Platform.requestNextPulse();
          return pulses.get() >= 4;
        });
    interact(() -> stage.getScene().removePostLayoutPulseListener(count));
  }

  private static int indexOf(TableView<?> view, String name) {
    for (int i = 0; i < view.getItems().size(); i++) {
      Object item = view.getItems().get(i);
      String shown =
          item instanceof zander.core.files.RemoteEntry entry
              ? entry.name()
              : ((zander.desk.local.LocalRow) item).name();
      if (shown.equals(name)) {
        return i;
      }
    }
    return -1;
  }

  private static boolean isNamed(Labeled cell, String name) {
    return cell.getText() != null
        && (cell.getText().equals(name) || cell.getText().startsWith(name + "  →"));
  }

  public void choose(String table, String... names) {
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

  public void openRow(String table, String name) {
    doubleClickOn(cell(table, name));
  }

  /** The names of the rows that the folder shows. */
  public List<String> rows() {
    return desk().folder().rows().stream().map(RemoteEntry::name).toList();
  }

  /** Gives warden's password when it is asked for, and waits until all is done as another. */
  public void giveThePassword(String account) {
    until("the password is asked", () -> shownOrNull("#secret") != null);
    fill("#secret", "heron-at-dusk");
    push(KeyCode.ENTER);
    until("all is done as " + account, () -> desk() != null && account.equals(desk().actsAs()));
  }

  /** Fills the fields of the strip and presses its first answer. */
  public void answer(String choice, String... texts) throws Exception {
    String[] fields = {"#strip-name", "#strip-target"};
    for (int i = 0; i < texts.length; i++) {
      String field = fields[i];
      until(field + " is asked", () -> shownOrNull(field) != null);
      put(field, texts[i]);
    }
    press("#choice-" + choice);
  }

  public boolean exists(String path) {
    try {
      stat(path);
      return true;
    } catch (Exception e) {
      return false;
    }
  }

  /** Replaces what is in a field by typing. */
  public void fill(String id, String text) {
    clickOn(shown(id));
    push(KeyCode.CONTROL, KeyCode.A);
    write(text);
    WaitForAsyncUtils.waitForFxEvents();
  }

  /** Puts a text into a field at once, as pasting does: for long ones, and for none. */
  public void put(String id, String text) throws Exception {
    inWindow(
        () -> {
          ((TextField) shown(id)).setText(text);
          return null;
        });
    WaitForAsyncUtils.waitForFxEvents();
  }

  public String text(String id) {
    Node node = shown(id);
    return node instanceof TextField field ? field.getText() : ((Labeled) node).getText();
  }

  /** The waterline looks at its transfer some times a second, so it may be a moment behind. */
  public void untilWaterlineSays(String words) {
    until("the waterline says " + words, () -> text("#transfer-line").contains(words));
  }

  public boolean isOn(String box) {
    return shown(box).getStyleClass().contains("on");
  }

  public Button buttonWith(String words) {
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
