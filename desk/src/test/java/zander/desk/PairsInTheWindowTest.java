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

/** Brackets, quotes and tags as they are typed. */
class PairsInTheWindowTest {
  private static final String PAGE = "/srv/levels/site/contact.html";

  @TempDir Path folder;
  private Window window;
  private CodeArea editor;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    window.openLevelsWeb();
    Window.inWindow(
        () -> {
          window.desk().openFile(RemotePath.of(PAGE));
          return null;
        });
    window.until("it is open", () -> window.desk().currentProperty().get() instanceof FileModel);
    window.until("it is shown", () -> window.shownOrNull("#editor") != null);
    editor = (CodeArea) window.shown("#editor");
    window.interact(editor::requestFocus);
    window.interact(() -> editor.replaceText("\n"));
    window.interact(() -> editor.moveTo(0));
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  private void type(String text) {
    window.write(text);
  }

  private String line() {
    return editor.getText(0);
  }

  @Test
  void whatIsOpenedIsClosedAndTypedOver() {
    type("a (b");
    assertThat(line()).isEqualTo("a (b)");
    type(")");
    assertThat(line()).isEqualTo("a (b)");
    type(" [\"c\"]");
    assertThat(line()).isEqualTo("a (b) [\"c\"]");
    assertThat(editor.getCaretPosition()).isEqualTo(line().length());
    // Between what was opened alone both go; what was typed stays.
    type("{");
    assertThat(line()).endsWith("{}");
    window.push(KeyCode.BACK_SPACE);
    assertThat(line()).isEqualTo("a (b) [\"c\"]");
    // Not within a word, nor before one.
    type(" it's");
    assertThat(line()).endsWith(" it's");
    window.push(KeyCode.HOME);
    type("(");
    assertThat(line()).startsWith("(a (b)");
  }

  @Test
  void whatIsSelectedIsPutBetweenThem() {
    type("levels of the river");
    window.interact(() -> editor.selectRange(10, 13));
    type("\"");
    assertThat(line()).isEqualTo("levels of \"the\" river");
    assertThat(editor.getSelectedText()).isEqualTo("the");
    type("(");
    assertThat(line()).isEqualTo("levels of \"(the)\" river");
    window.push(KeyCode.CONTROL, KeyCode.Z);
    assertThat(line()).isEqualTo("levels of \"the\" river");
  }

  @Test
  void elementsAreClosedAndBracketsFound() {
    type("<p><b>low</");
    assertThat(line()).isEqualTo("<p><b>low</b>");
    type("</");
    assertThat(line()).isEqualTo("<p><b>low</b></p>");
    type(" {x (y) z}");
    window.push(KeyCode.ALT, KeyCode.SHIFT, KeyCode.B);
    assertThat(editor.getCaretPosition()).isEqualTo(line().indexOf('{') + 1);
    window.until(
        "both are marked",
        () ->
            editor.getStyleOfChar(line().indexOf('{')).contains("paired")
                && editor.getStyleOfChar(line().indexOf('}')).contains("paired"));
  }
}
