package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import javafx.scene.input.KeyCode;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.desk.file.FileModel;

/** New files from templates and from other texts, and snippets with their stops. */
class TemplatesInTheWindowTest {
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

  private FileModel openFile(String path) {
    window.interact(() -> window.desk().openFile(RemotePath.of(path), 0));
    return awaitFile(path);
  }

  private FileModel awaitFile(String path) {
    window.until(
        path + " is open",
        () ->
            window.desk().currentProperty().get() instanceof FileModel file
                && file.path().text().equals(path));
    window.until("the text has the keyboard", () -> editor().isFocused());
    return (FileModel) window.desk().currentProperty().get();
  }

  private CodeArea editor() {
    return (CodeArea) window.shown("#editor");
  }

  private void goTo(String action) {
    window.push(KeyCode.CONTROL, KeyCode.G);
    window.write(action);
    window.push(KeyCode.ENTER);
  }

  @Test
  void aNewFileBeginsWithATemplateAndItsLinksLeadWhereTheyLed() throws Exception {
    openFile(SITE + "contact.html");
    window.interact(
        () ->
            editor()
                .replaceText(
                    "<title>{{title}}</title>\n<link href=\"water.css\">\n"
                        + "<a href=\"stations/station-001.html#x\">{{title}}, {{file}}</a>\n"
                        + "<a href=\"/index.html\">\n"));
    goTo("keep this file as a template");
    window.fill("#template-name", "a page");
    window.press("#choice-for-this-server");
    window.press("#choice-close");
    window.interact(() -> window.desk().goTo(RemotePath.of(SITE + "uploads")));
    window.until(
        "the folder is in front",
        () -> SITE.concat("uploads").equals(String.valueOf(window.desk().folder().path())));
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.N);
    window.fill("#template-name", "a page");
    window.press("#choice-next");
    window.fill("#template-file", "photos.html");
    window.fill("#template-field-1", "Photos");
    window.press("#choice-create");
    FileModel made = awaitFile(SITE + "uploads/photos.html");
    window.until("it has its text", () -> !made.text().isEmpty());
    assertThat(made.text())
        .isEqualTo(
            "<title>Photos</title>\n<link href=\"../water.css\">\n"
                + "<a href=\"../stations/station-001.html#x\">Photos, photos.html</a>\n"
                + "<a href=\"/index.html\">\n");
    assertThat(window.content(SITE + "uploads/photos.html")).isEmpty();
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is saved", () -> !made.isUnsaved());
    goTo("copy this text into a new file");
    window.fill("#template-file", "../photos.html");
    window.press("#choice-create");
    FileModel copy = awaitFile(SITE + "photos.html");
    window.until("it has its text", () -> !copy.text().isEmpty());
    assertThat(copy.text()).contains("\"water.css\"").contains("\"stations/station-001.html#x\"");
    assertThat(copy.isUnsaved()).isTrue();
  }

  @Test
  void aSnippetIsGoneThroughStopByStop() {
    openFile(SITE + "contact.html");
    window.interact(() -> editor().replaceText("<main>\n  \n</main>\n"));
    window.interact(() -> editor().moveTo(1, 2));
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.T);
    window.fill("#snippet-name", "page");
    window.press("#choice-insert");
    window.until("the first stop is marked", () -> editor().getSelectedText().equals("language"));
    window.write("en");
    window.push(KeyCode.TAB);
    window.until("the next", () -> editor().getSelectedText().equals("title"));
    window.write("Levels");
    window.push(KeyCode.TAB);
    window.write("now");
    assertThat(editor().getText())
        .contains("<html lang=\"en\">")
        .contains("    <title>Levels</title>")
        .contains("    <h1>Levels</h1>\n    now\n");
    window.interact(() -> editor().selectRange(0, 6));
    goTo("keep the selection as a snippet");
    window.fill("#snippet-name", "main part");
    window.press("#choice-for-html");
    window.interact(() -> editor().moveTo(editor().getLength()));
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.T);
    window.fill("#snippet-name", "main part");
    window.press("#choice-insert");
    window.until("it is put in", () -> editor().getText().endsWith("</main>\n<main>"));
  }
}
