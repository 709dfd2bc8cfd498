package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.desk.file.FileModel;
import zander.desk.history.JournalModel;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** Several files of a desk that are saved as one change. */
class JointSaveInTheWindowTest {
  private static final String CONTACT = "/srv/levels/site/contact.html";
  private static final String STYLE = "/srv/levels/site/water.css";

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

  private FileModel type(String path, String text) {
    OpenedFile file = OpenedFile.open(window, path);
    window.interact(() -> file.editor().insertText(0, text));
    assertThat(file.model().isUnsaved()).isTrue();
    return file.model();
  }

  private void saveAll() {
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.S);
    window.press("#choice-save-all");
  }

  @Test
  void allAreSavedOrNoneAndPutBackTogether() throws Exception {
    String contact = window.content(CONTACT);
    String style = window.content(STYLE);
    FileModel first = type(CONTACT, "<!-- a -->\n");
    FileModel second = type(STYLE, "/* b */\n");
    byte[] theirs = "/* theirs */\n".getBytes(StandardCharsets.UTF_8);
    window
        .world("levels-web")
        .open(Caller.ROOT, STYLE, new World.Open(false, true, false, false, true, 0))
        .write(0, theirs, 0, theirs.length);
    saveAll();
    window.until(
        "it is refused", () -> second.questionProperty().get() != null && !second.isBusy());
    assertThat(second.questionProperty().get().said().detail())
        .contains("None of the files is saved");
    assertThat(window.content(CONTACT)).isEqualTo(contact);
    assertThat(window.content(STYLE)).isEqualTo("/* theirs */\n");
    assertThat(first.isUnsaved()).isTrue();
    byte[] before = style.getBytes(StandardCharsets.UTF_8);
    window
        .world("levels-web")
        .open(Caller.ROOT, STYLE, new World.Open(false, true, false, false, true, 0))
        .write(0, before, 0, before.length);
    window.press("#choice-close");
    saveAll();
    window.until("both are saved", () -> !first.isUnsaved() && !second.isUnsaved());
    assertThat(window.content(CONTACT)).startsWith("<!-- a -->\n");
    assertThat(window.content(STYLE)).startsWith("/* b */\n");
    window.push(KeyCode.ALT, KeyCode.J);
    window.until(
        "one entry stands for both",
        () ->
            window.desk().currentProperty().get() instanceof JournalModel journal
                && !journal.entries().isEmpty()
                && journal.where(journal.entries().get(0)).endsWith("and 1 more"));
    JournalModel journal = (JournalModel) window.desk().currentProperty().get();
    window.interact(() -> journal.putBack(journal.entries().get(0)));
    window.press("#choice-put-back-all");
    window.until(
        "both are put back",
        () -> {
          try {
            return window.content(CONTACT).equals(contact) && window.content(STYLE).equals(style);
          } catch (Exception e) {
            return false;
          }
        });
  }
}
