package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
import javafx.scene.control.Labeled;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import zander.core.book.BookFile;
import zander.core.book.ServerBook;

/** A window whose secrets are looked for in every file and log afterwards. */
abstract class ReachInTheWindowFixture {
  static final String PASSWORD = "otter-under-ice";
  static final String PASSPHRASE = "weir under nine quiet stars";
  static final String MASTER = "seven herons on a sluice gate";
  static final String CODE = "kingfisher-41";

  @TempDir Path folder;
  Window window;
  LogCapture log;

  @BeforeEach
  void open() throws Exception {
    log = new LogCapture();
    window = new Window(folder);
  }

  /** Whatever a test did, none of its secrets is in any file or log. */
  @AfterEach
  void closeAndSearchForSecrets() throws Exception {
    window.close();
    for (String secret : List.of(PASSWORD, PASSPHRASE, MASTER, CODE, "heron-at-dusk")) {
      assertThat(SecretSearch.filesWith(folder, secret)).as(secret).isEmpty();
      assertThat(log.text()).as("the log").doesNotContain(secret);
    }
    log.close();
  }

  void until(String what, java.util.function.BooleanSupplier condition) {
    window.until(what, condition);
  }

  void untilShown(String words) {
    until(
        words + " is shown",
        () ->
            window.lookup(".label").queryAllAs(Labeled.class).stream()
                .anyMatch(label -> Window.isSeen(label) && label.getText().contains(words)));
  }

  ServerBook saved() {
    return new BookFile(window.setup.places().book()).read().book();
  }

  /** Waits for the book's file; read here, because the window's thread may not. */
  void untilBook(String what, java.util.function.Predicate<ServerBook> condition) throws Exception {
    org.testfx.util.WaitForAsyncUtils.waitFor(
        30, java.util.concurrent.TimeUnit.SECONDS, () -> condition.test(saved()));
    org.testfx.util.WaitForAsyncUtils.waitForFxEvents();
    until(what, () -> window.model.book().draftProperty().get() == null);
  }

  void openLabUploads(String keep) {
    window.openServer("lab-uploads");
    window.press("#prompt-yes");
    until("the password is asked", () -> window.shownOrNull("#secret") != null);
    window.press("#keep-" + keep);
    window.fill("#secret", PASSWORD);
    window.push(KeyCode.ENTER);
  }

  void closeDesk() {
    window.clickOn(window.shown(".tab-close"));
    until("the desk is closed", () -> window.desk() == null);
  }
}
