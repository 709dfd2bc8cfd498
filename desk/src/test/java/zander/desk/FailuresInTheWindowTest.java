package zander.desk;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.stream.Collectors;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.transfer.local.LocalEndpoint;
import zander.desk.file.FileModel;
import zander.standin.demo.DemoKeys;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** What goes wrong, as the person sees it: said in words, with nothing lost and a way on. */
class FailuresInTheWindowTest {
  private static final String CONTACT = "/srv/levels/site/contact.html";

  @TempDir Path folder;
  private Window window;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
  }

  @AfterEach
  void close() throws Exception {
    window.demo().server("levels-web").faults().setDelay(Duration.ZERO);
    window.close();
  }

  private FileModel openContact() {
    window.openRow("#server-table", "contact.html");
    window.until(
        "the file is open", () -> window.desk().currentProperty().get() instanceof FileModel);
    FileModel file = (FileModel) window.desk().currentProperty().get();
    window.clickOn(window.shown("#editor"));
    window.push(KeyCode.CONTROL, KeyCode.HOME);
    return file;
  }

  private String headline() {
    window.until("something is said", () -> window.shownOrNull(".strip-headline") != null);
    return ((Labeled) window.shown(".strip-headline")).getText();
  }

  private void untilSaid(String words) {
    window.until(
        words + " is said",
        () ->
            window.lookup(".strip-headline").queryAllAs(Labeled.class).stream()
                .anyMatch(label -> Window.isSeen(label) && label.getText().contains(words)));
  }

  /** All that stands below the headline. */
  private String detail() {
    return window.lookup(".strip .label").queryAllAs(Labeled.class).stream()
        .map(Labeled::getText)
        .collect(Collectors.joining("\n"));
  }

  private void write(String path, String content) throws Exception {
    window
        .world("levels-web")
        .open(Caller.ROOT, path, new World.Open(false, true, true, false, true, 0644))
        .write(0, content.getBytes(UTF_8), 0, content.length());
  }

  @Test
  void aChangedHostKeyStopsBeforeAnySecret() throws Exception {
    window.openLevelsWeb();
    String known = window.desk().folder().path().text();
    assertThat(known).isEqualTo("/srv/levels/site");
    window.clickOn(window.shown(".tab-close"));
    window.until("the desk is closed", () -> window.desk() == null);
    window.demo().server("levels-web").setHostKey(DemoKeys.pair("somebody else"));
    window.openServer("levels-web");
    assertThat(headline()).isEqualTo("The host key of levels-web.riverwatch.example has changed");
    assertThat(detail())
        .contains("before any secret")
        .contains("known  ed25519 SHA256:")
        .contains("shown  ed25519 SHA256:");
    assertThat(window.shownOrNull("#fingerprint")).isNull();
    assertThat(window.desk()).isNull();
  }

  @Test
  void aHostKeyThatIsDeclinedOpensNothing() {
    window.openServer("levels-web");
    window.press("#prompt-no");
    assertThat(headline()).contains("Not connected");
    assertThat(window.setup.knownHosts()).content().doesNotContain("levels-web");
  }

  @Test
  void typedAddressesAreTriedAndExplained() {
    window.fill("#search", "nonsense");
    window.push(KeyCode.ENTER);
    window.until("it is explained", () -> window.shownOrNull(".strip-detail") != null);
    assertThat(detail()).contains("account@host");
    window.press("#dismiss-notice");
    window.fill("#search", "sftp://warden@gate.riverwatch.example/tmp");
    window.push(KeyCode.ENTER);
    window.press("#prompt-yes");
    window.until("a password is asked", () -> window.shownOrNull("#secret") != null);
    window.write("not this one");
    window.push(KeyCode.ENTER);
    window.until(
        "the wrong try is counted",
        () ->
            window.lookup(".card .problem").queryAll().stream()
                .anyMatch(node -> ((Labeled) node).getText().contains("One wrong try")));
    window.write("heron-at-dusk");
    window.push(KeyCode.ENTER);
    window.until("the desk is open", () -> window.desk() != null);
    assertThat(window.desk().whoAmI().account()).isEqualTo("warden");
    assertThat(window.desk().folder().path().text()).isEqualTo("/tmp");
  }

  @Test
  void anothersChangeIsNotOverwrittenUnasked() throws Exception {
    window.openLevelsWeb();
    FileModel file = openContact();
    window.write("mine ");
    write(CONTACT, "theirs");
    window.press("#save");
    assertThat(headline()).contains("was changed on the server since you opened it");
    assertThat(window.content(CONTACT)).isEqualTo("theirs");
    assertThat(file.text()).startsWith("mine <!doctype");
    window.press("#choice-load-theirs");
    CodeArea editor = (CodeArea) window.shown("#editor");
    window.until("theirs is shown", () -> editor.getText().equals("theirs"));
    window.clickOn(editor);
    window.push(KeyCode.CONTROL, KeyCode.Z);
    window.until("undo brings mine back", () -> editor.getText().startsWith("mine <!doctype"));
    window.press("#save");
    window.until("mine is saved", () -> !file.unsavedProperty().get());
    assertThat(window.content(CONTACT)).startsWith("mine <!doctype");
  }

  @Test
  void aSaveThatWouldChangeTheOwnerAsksFirst() throws Exception {
    window.openLevelsWeb();
    window.openRow("#server-table", "index.html");
    window.until(
        "the file is open", () -> window.desk().currentProperty().get() instanceof FileModel);
    window.clickOn(window.shown("#editor"));
    window.write("x");
    window.press("#save");
    assertThat(headline()).contains("would change its owner");
    assertThat(window.stat("/srv/levels/site/index.html").uid()).isEqualTo(1002);
    window.press("#choice-save-and-own-it");
    FileModel file = (FileModel) window.desk().currentProperty().get();
    window.until("it is saved", () -> !file.unsavedProperty().get());
    assertThat(window.stat("/srv/levels/site/index.html").uid()).isEqualTo(1004);
    assertThat(window.stat("/srv/levels/site/index.html").mode()).isEqualTo(0644);
  }

  @Test
  void aLineCutInTheMiddleOfASaveLosesNothing() throws Exception {
    window.openLevelsWeb();
    FileModel file = openContact();
    String before = window.content(CONTACT);
    window.write("typed before the cut ");
    window.demo().server("levels-web").faults().setDelay(Duration.ofMillis(150));
    window.press("#save");
    window.until("it is saving", () -> file.busyProperty().get());
    window.demo().server("levels-web").dropAll();
    untilSaid("connection broke");
    assertThat(file.text()).startsWith("typed before the cut ");
    assertThat(window.content(CONTACT)).isIn(before, file.text());
    assertThat(window.desk().folder().rows()).isNotEmpty();
    window.demo().server("levels-web").faults().setDelay(Duration.ZERO);
    window.until("it is back by itself", () -> !window.desk().line().awayProperty().get());
    window.press("#choice-try-again");
    window.until("it is saved", () -> !file.unsavedProperty().get());
    assertThat(window.content(CONTACT)).startsWith("typed before the cut ");
    assertThat(window.stat(CONTACT).mode()).isEqualTo(0664);
    window.demo().server("levels-web").close();
    untilSaid("Next one in");
    window.press("#stop-trying");
    untilSaid("What you see is as it was");
    assertThat(window.desk().sheets()).contains(file);
  }

  @Test
  void whatCannotBeOpenedSaysWhy() throws Exception {
    write("/srv/levels/site/photo.bin", "a\0b");
    window.world("levels-web").symlink(Caller.ROOT, "round", "/srv/levels/site/round");
    window.openLevelsWeb();
    window.openRow("#server-table", "photo.bin");
    assertThat(headline()).contains("not a text");
    window.openRow("#server-table", "round");
    untilSaid("round cannot be opened");
    window.openRow("#server-table", "alerts.html");
    untilSaid("no permission");
    window.push(KeyCode.CONTROL, KeyCode.L);
    window.fill("#server-path-field", "/no/such/folder");
    window.push(KeyCode.ENTER);
    untilSaid("not there");
    assertThat(window.desk().folder().path().text()).isEqualTo("/srv/levels/site");
  }

  @Test
  void unsavedTextIsNotClosedUnasked() throws Exception {
    window.openLevelsWeb();
    FileModel file = openContact();
    window.write("keep me ");
    window.push(KeyCode.CONTROL, KeyCode.W);
    assertThat(headline()).contains("is not saved");
    Window.inWindow(
        () -> {
          javafx.stage.WindowEvent event =
              new javafx.stage.WindowEvent(
                  window.stage, javafx.stage.WindowEvent.WINDOW_CLOSE_REQUEST);
          javafx.event.Event.fireEvent(window.stage, event);
          return null;
        });
    assertThat(window.stage.isShowing()).isTrue();
    window.press("#choice-keep-editing");
    assertThat(window.desk().sheets()).contains(file);
    window.push(KeyCode.CONTROL, KeyCode.W);
    window.press("#choice-save");
    window.until("it is saved", () -> !file.unsavedProperty().get());
    assertThat(window.content(CONTACT)).startsWith("keep me ");
  }

  @Test
  void goesAnywhereByAFewLetters() {
    window.openLevelsWeb();
    window.push(KeyCode.CONTROL, KeyCode.G);
    window.write("sett");
    window.push(KeyCode.ENTER);
    window.until(
        "the settings are shown", () -> window.desk().folder().path().text().equals("/etc/levels"));
    window.push(KeyCode.CONTROL, KeyCode.G);
    window.write("dark");
    window.push(KeyCode.ENTER);
    window.until("the dark look is on", () -> window.model.darkProperty().get());
    window.push(KeyCode.CONTROL, KeyCode.G);
    window.write("~");
    window.push(KeyCode.ENTER);
    window.until(
        "home is shown", () -> window.desk().folder().path().text().equals("/home/warden"));
    window.push(KeyCode.ALT, KeyCode.LEFT);
    window.until("it went back", () -> window.desk().folder().path().text().equals("/etc/levels"));
  }

  @Test
  void theInterfaceThreadMayNotWaitForAServer() throws Exception {
    window.openLevelsWeb();
    LocalEndpoint side = new LocalEndpoint(Files.createDirectories(folder.resolve("probe")));
    Throwable refused = Window.inWindow(() -> catchThrowable(() -> side.list("")));
    assertThat(refused).isInstanceOf(IllegalStateException.class).hasMessageContaining("must not");
    assertThat(side.list("")).isEmpty();
  }

  @Test
  void aTransferCanBeStoppedAndSaysWhatIsThere() throws Exception {
    window.openLevelsWeb();
    window.demo().server("levels-web").faults().setDelay(Duration.ofMillis(5));
    Path many = Files.createDirectories(window.demo().siteFolder().resolve("many"));
    for (int i = 0; i < 1500; i++) {
      Files.writeString(many.resolve("f" + i), "x".repeat(i));
    }
    window.push(KeyCode.F5);
    window.choose("#local-table", "many");
    window.push(KeyCode.CONTROL, KeyCode.UP);
    window.until(
        "some are up",
        () ->
            window.desk().transfers().current() != null
                && window.desk().transfers().current().progress().files() > 5);
    window.press("#stop-transfer");
    window.until("it has stopped", () -> window.desk().transfers().current().isOver());
    window.demo().server("levels-web").faults().setDelay(Duration.ZERO);
    window.untilWaterlineSays("each whole");
    assertThat(window.text("#transfer-line")).contains("stopped");
    World world = window.world("levels-web");
    for (String name : world.list(Caller.ROOT, "/srv/levels/site/many")) {
      assertThat(name).doesNotContain(".zander-");
      assertThat(window.stat("/srv/levels/site/many/" + name).size())
          .isEqualTo(Integer.parseInt(name.substring(1)));
    }
  }
}
