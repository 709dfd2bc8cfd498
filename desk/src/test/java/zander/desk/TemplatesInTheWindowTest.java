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
    OpenedFile.open(window, SITE + "contact.html");
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
    FileModel made = OpenedFile.await(window, SITE + "uploads/photos.html").model();
    window.until("it has its text", () -> !made.text().isEmpty());
    assertThat(made.text())
        .isEqualTo(
            "<title>Photos</title>\n<link href=\"../water.css\">\n"
                + "<a href=\"../stations/station-001.html#x\">Photos, photos.html</a>\n"
                + "<a href=\"/index.html\">\n");
    assertThat(window.content(SITE + "uploads/photos.html")).isEmpty();
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is saved", () -> !made.isUnsaved());
    goTo("keep this file as a template");
    window.fill("#template-name", "a page");
    window.press("#choice-for-this-server");
    window.until("it is asked", () -> window.shownOrNull("#choice-replace-it") != null);
    window.press("#choice-cancel");
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.N);
    window.fill("#template-name", "a p");
    window.press("#choice-next");
    window.until(
        "the template is as before", () -> window.shownOrNull("#template-field-1") != null);
    window.press("#choice-cancel");
    goTo("copy this text into a new file");
    window.fill("#template-file", "../photos.html");
    window.press("#choice-create");
    FileModel copy = OpenedFile.await(window, SITE + "photos.html").model();
    window.until("it has its text", () -> !copy.text().isEmpty());
    assertThat(copy.text()).contains("\"water.css\"").contains("\"stations/station-001.html#x\"");
    assertThat(copy.isUnsaved()).isTrue();
  }

  @Test
  void aSnippetIsGoneThroughStopByStop() {
    OpenedFile.open(window, SITE + "contact.html");
    window.interact(() -> editor().replaceText("<main>\n  <p></p>\n  \n</main>\n"));
    window.interact(() -> editor().moveTo(2, 2));
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.T);
    window.fill("#snippet-name", "pag");
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
