package zander.desk;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import javafx.scene.control.ChoiceBox;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.compare.CompareModel;
import zander.desk.compare.CompareModel.Side;
import zander.desk.file.FileModel;
import zander.standin.world.Caller;
import zander.standin.world.OpenFile;
import zander.standin.world.World;

/** Versions of a file side by side, in the window. */
class CompareInTheWindowTest {
  private static final String PAGE = "/srv/levels/site/contact.html";

  @TempDir Path folder;
  private Window window;
  private FileModel file;
  private CodeArea editor;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    window.openLevelsWeb();
    byte[] old = "<!doctype html>\n<p>The old page.</p>\n".getBytes(UTF_8);
    OpenFile backup =
        window
            .world("levels-web")
            .open(Caller.ROOT, PAGE + "~", new World.Open(false, true, true, false, false, 0644));
    backup.write(0, old, 0, old.length);
    window.interact(() -> window.desk().openFile(RemotePath.of(PAGE)));
    window.until("it is open", () -> window.shownOrNull("#editor") != null);
    file = (FileModel) window.desk().currentProperty().get();
    editor = (CodeArea) window.shown("#editor");
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  private void untilSaid(String outcome) {
    window.until(
        outcome, () -> ((Labeled) window.shown("#compare-outcome")).getText().equals(outcome));
  }

  private CompareModel compared() {
    return (CompareModel) window.desk().currentProperty().get();
  }

  @Test
  void changesAreSeenAndTakenBackOneByOne() {
    String before = file.text();
    window.interact(
        () -> {
          editor.appendText("<!-- the end -->\n");
          editor.insertText(0, "<!-- the beginning -->\n");
        });
    window.push(KeyCode.ALT, KeyCode.V);
    window.press("#choice-side-by-side");
    untilSaid("Change 1 of 2");
    window.push(KeyCode.F8);
    untilSaid("Change 2 of 2");
    window.press("#compare-take-back");
    untilSaid("Change 1 of 1");
    assertThat(file.text()).isEqualTo("<!-- the beginning -->\n" + before);
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.Z);
    untilSaid("No line differs");
    assertThat(file.text()).isEqualTo(before);
    assertThat(file.isUnsaved()).isFalse();
  }

  @Test
  void anyTwoVersionsAreComparedAndAnyIsPutBack() throws Exception {
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.E);
    window.until("the backup is found", () -> compared().sides().size() == 3);
    Side backup = compared().sides().get(2);
    assertThat(backup.name()).startsWith("contact.html~, changed");
    @SuppressWarnings("unchecked")
    ChoiceBox<Side> left = (ChoiceBox<Side>) window.shown("#compare-left");
    window.interact(() -> left.setValue(backup));
    window.until("they differ", () -> compared().comparedProperty().get().changes() > 0);
    window.press("#compare-put-in");
    untilSaid("No line differs");
    assertThat(file.text()).isEqualTo("<!doctype html>\n<p>The old page.</p>\n");
    assertThat(window.content(PAGE)).as("on the server").contains("Riverwatch: contact");

    window.interact(() -> window.desk().close(file));
    window.press("#choice-close-without-saving");
    window.until(
        "what compared it is closed as well",
        () -> window.desk().openSheets().of(CompareModel.class).isEmpty());
  }

  /** A text of 10 MB. */
  @Test
  void aLongTextIsComparedAndChangedBack() throws Exception {
    String path = "/srv/levels/site/readings.csv";
    StringBuilder lines = new StringBuilder();
    for (int i = 0; lines.length() < 10_000_000; i++) {
      lines.append("station-").append(i).append(";1.42;m;2026-11-29 07:45\n");
    }
    byte[] content = lines.toString().getBytes(UTF_8);
    window
        .world("levels-web")
        .open(Caller.ROOT, path, new World.Open(false, true, true, false, false, 0644))
        .write(0, content, 0, content.length);
    window.interact(() -> window.desk().openFile(RemotePath.of(path)));
    window.until(
        "it is open",
        () ->
            window.desk().currentProperty().get() instanceof FileModel shown
                && shown.path().name().equals("readings.csv")
                && ((CodeArea) window.shown("#editor")).getLength() == content.length);
    CodeArea text = (CodeArea) window.shown("#editor");
    FileModel readings = (FileModel) window.desk().currentProperty().get();
    window.interact(
        () -> {
          text.appendText("the end\n");
          text.insertText(0, "station;level;unit;at\n");
        });
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.E);
    window.until("it is shown", () -> window.shownOrNull("#compare-outcome") != null);
    untilSaid("Change 1 of 2");
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.Z);
    untilSaid("Change 1 of 1");
    assertThat(readings.text()).startsWith("station-0;").endsWith("the end\n");
  }
}
