package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.concurrent.TimeUnit;
import javafx.scene.input.KeyCode;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.desk.file.FileModel;

/** Files of the server in another program of this computer: here a script that waits. */
class OwnProgramTest {
  /** A program that ends sooner has given the file to another one, as far as is known. */
  private static final long STARTING = TimeUnit.SECONDS.toNanos(4);

  private static final String PAGE = "/srv/levels/site/contact.html";

  @TempDir Path folder;
  private Window window;
  private Path told;
  private Path stop;

  @BeforeEach
  void open() throws Exception {
    told = folder.resolve("told");
    stop = folder.resolve("stop");
    Path program = folder.resolve("pond-edit");
    Files.writeString(
        program,
        "#!/bin/sh\nprintf %s \"$1\" > '"
            + told
            + ".part'; mv '"
            + told
            + ".part' '"
            + told
            + "'\nwhile [ ! -e '"
            + stop
            + "' ]; do sleep 0.1; done\n");
    Files.setPosixFilePermissions(program, PosixFilePermissions.fromString("rwx------"));
    window = new Window(folder);
    window.openLevelsWeb();
  }

  @AfterEach
  void close() throws Exception {
    Files.writeString(stop, "");
    window.close();
  }

  private void start(String name, String program) {
    window.choose("#server-table", name);
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.O);
    window.until("it is asked", () -> window.shownOrNull("#own-program") != null);
    window.fill("#own-program", program);
    window.press("#choice-open");
  }

  /** The copy that the program was started with. */
  private Path started() throws Exception {
    start("contact.html", folder.resolve("pond-edit").toString());
    window.until("it runs", () -> Files.exists(told));
    window.until("it is said", () -> window.shownOrNull("#own-program-tag") != null);
    return Path.of(Files.readString(told));
  }

  private static String read(Path file) {
    try {
      return Files.readString(file);
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  /** As a careful program saves: a new file in the place of the old one. */
  private void saveIn(Path copy, String text) throws IOException {
    Path beside = copy.resolveSibling("beside~");
    Files.writeString(beside, text);
    Files.move(beside, copy, StandardCopyOption.ATOMIC_MOVE);
  }

  private FileModel file() {
    return (FileModel) window.desk().currentProperty().get();
  }

  private void untilServerHas(String text) {
    untilServerHas(PAGE, text);
  }

  private void untilServerHas(String page, String text) {
    window.until(
        "the server has it",
        () -> {
          try {
            return window.content(page).equals(text);
          } catch (Exception e) {
            throw new IllegalStateException(e);
          }
        });
    window.until("the sheet knows", () -> !file().isUnsaved() && !file().isBusy());
  }

  @Test
  void whatItSavesIsOnTheServerAndTheOtherWayRound() throws Exception {
    String before = window.content(PAGE);
    Path copy = started();
    long began = System.nanoTime();
    assertThat(copy.getFileName()).hasToString("contact.html");
    assertThat(read(copy)).isEqualTo(before);
    assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(copy)))
        .isEqualTo("rw-------");
    assertThat(PosixFilePermissions.toString(Files.getPosixFilePermissions(copy.getParent())))
        .isEqualTo("rwx------");
    String first = before.replace("<body>", "<body>\n<p>Gauge 7 is mended.</p>");
    saveIn(copy, first);
    untilServerHas(first);

    CodeArea editor = (CodeArea) window.shown("#editor");
    window.interact(() -> editor.appendText("<!-- seen -->\n"));
    window.push(KeyCode.CONTROL, KeyCode.S);
    untilServerHas(first + "<!-- seen -->\n");
    window.until("the copy has it", () -> read(copy).equals(first + "<!-- seen -->\n"));

    window.until("it is more than a starter", () -> System.nanoTime() - began > STARTING);
    Files.writeString(stop, "");
    window.press("#choice-remove-the-copy");
    window.until("the copy is gone", () -> !Files.exists(copy.getParent()));
    window.until("it is no longer said", () -> window.shownOrNull("#own-program-tag") == null);
    assertThat(window.content(PAGE)).isEqualTo(first + "<!-- seen -->\n");
  }

  @Test
  void whatBothChangeIsPutTogetherOrAsked() throws Exception {
    String before = window.content(PAGE);
    Path copy = started();
    CodeArea editor = (CodeArea) window.shown("#editor");
    window.interact(() -> editor.appendText("<!-- here -->\n"));
    saveIn(copy, "<!-- there -->\n" + before);
    String both = "<!-- there -->\n" + before + "<!-- here -->\n";
    window.until("they are put together", () -> file().text().equals(both));
    assertThat(window.content(PAGE)).as("not saved unasked").isEqualTo(before);
    window.push(KeyCode.CONTROL, KeyCode.S);
    untilServerHas(both);
    window.until("the copy has both", () -> read(copy).equals(file().text()));

    window.interact(() -> editor.replaceText(0, 15, "<!-- mine -->\n"));
    saveIn(copy, "<!-- theirs -->\n" + before + "<!-- here -->\n");
    window.until("it is asked", () -> window.shownOrNull("#choice-keep-the-text-here") != null);
    window.clickOn("Take what pond-edit saved");
    untilServerHas("<!-- theirs -->\n" + before + "<!-- here -->\n");
  }

  @Test
  void aProgramThatIsNotThereIsTold() {
    start("contact.html", "no-such-program-here");
    window.until(
        "it is told",
        () ->
            file().questionProperty().get() != null
                && file()
                    .questionProperty()
                    .get()
                    .said()
                    .headline()
                    .equals("Could not start no-such-program-here"));
    window.until(
        "nothing is open", () -> window.desk().fileSheets().programs().countProperty().get() == 0);
  }

  @Test
  void whatWasOpenIsOfferedAgain() throws Exception {
    String before = window.content(PAGE);
    Path copy = started();
    window.clickOn(window.shown(".tab-close"));
    window.until("the desk is closed", () -> window.desk() == null);
    saveIn(copy, before + "<!-- saved meanwhile -->\n");
    window.openServer("levels-web");
    window.press("#choice-go-on");
    window.until("it is open", () -> window.shownOrNull("#own-program-tag") != null);
    window.until(
        "the text is there", () -> file().text().equals(before + "<!-- saved meanwhile -->\n"));
    assertThat(window.content(PAGE)).as("not saved unasked").isEqualTo(before);
    window.push(KeyCode.CONTROL, KeyCode.S);
    untilServerHas(before + "<!-- saved meanwhile -->\n");
    window.push(KeyCode.CONTROL, KeyCode.W);
    window.until("the copy is gone", () -> !Files.exists(copy.getParent()));
  }

  /** What the program saved is in its copy when nothing of it went to the server. */
  @Test
  void aCopyWithMoreThanTheServerHasOutlivesItsSheet() throws Exception {
    String before = window.content(PAGE);
    Path copy = started();
    CodeArea editor = (CodeArea) window.shown("#editor");
    window.interact(() -> editor.appendText("<!-- here -->\n"));
    saveIn(copy, "<!-- there -->\n" + before);
    window.until("it is taken", () -> file().text().startsWith("<!-- there -->"));
    FileModel file = file();
    window.interact(() -> window.desk().close(file));
    window.press("#choice-close-without-saving");
    window.until(
        "nothing is open", () -> window.desk().fileSheets().programs().countProperty().get() == 0);
    assertThat(window.content(PAGE)).isEqualTo(before);
    assertThat(read(copy)).isEqualTo("<!-- there -->\n" + before);
  }

  @Test
  void rootsFileIsSavedByRootAndStaysRoots() throws Exception {
    String page = "/srv/levels/site/alerts.html";
    window.press("#as-root");
    window.giveThePassword("root");
    window.until("it is read", () -> window.rows().contains("alerts.html"));
    String before = window.content(page);
    start("alerts.html", folder.resolve("pond-edit").toString());
    window.until("it runs", () -> Files.exists(told));
    saveIn(Path.of(Files.readString(told)), before + "<!-- by root -->\n");
    untilServerHas(page, before + "<!-- by root -->\n");
    assertThat(window.stat(page).uid()).isZero();
    assertThat(window.stat(page).mode()).isEqualTo(0640);
  }
}
