package zander.desk;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Locale;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ChoiceBox;
import javafx.scene.input.KeyCode;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.files.RemotePath;
import zander.desk.reading.ReadingModel;
import zander.standin.world.Caller;
import zander.standin.world.OpenFile;
import zander.standin.world.World;

/** A log read and followed as a person does, with the keyboard. */
class ReadingInTheWindowTest {
  static final String LOG = "/srv/levels/levels.log";
  private static final int LINES = 60_000;

  @TempDir Path folder;
  private Window window;
  private OpenFile file;
  private long size;
  private CodeArea area;

  /** What the levels service writes: a reading a second, and now and then something else. */
  static String line(int number) {
    String time =
        String.format(
            Locale.ROOT,
            "2026-11-28 %02d:%02d:%02d",
            number / 3600 % 24,
            number / 60 % 60,
            number % 60);
    if (number % 97 == 50) {
      return time + " warning: station-0" + number % 9 + " answers late, 4.1 s\n";
    }
    if (number % 411 == 100) {
      return time + " error: station-0" + number % 9 + " refused, reading left out\n";
    }
    return time
        + String.format(Locale.ROOT, " station-%03d level %.2f m", number % 240, number % 31 / 9.0)
        + "\n";
  }

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    window.openLevelsWeb();
    file =
        window
            .world("levels-web")
            .open(Caller.ROOT, LOG, new World.Open(false, true, true, false, false, 0644));
    StringBuilder content = new StringBuilder();
    for (int i = 0; i < LINES; i++) {
      content.append(line(i));
    }
    write(content.toString());
    Window.inWindow(
        () -> {
          ReadingModel.show(window.desk(), RemotePath.of(LOG));
          return null;
        });
    window.until("it is open", () -> window.text("#reading-state").equals("following"));
    area = (CodeArea) window.shown("#reading");
    window.until("its end is shown", () -> isInSight(line(LINES - 1)));
  }

  private void write(String text) throws Exception {
    byte[] bytes = text.getBytes(UTF_8);
    file.write(size, bytes, 0, bytes.length);
    size += bytes.length;
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  private boolean isInSight(String text) {
    return area.getVisibleParagraphs().stream()
        .anyMatch(paragraph -> paragraph.getText().equals(text.strip()));
  }

  @Test
  void whatComesIsSeenUntilOneReadsElsewhere() throws Exception {
    write(line(LINES));
    window.until("it is seen", () -> isInSight(line(LINES)));
    window.clickOn("#reading");
    for (int i = 0; i < 3; i++) {
      window.push(KeyCode.PAGE_UP);
    }
    window.until("the end is out of sight", () -> !isInSight(line(LINES)));
    write(line(LINES + 1) + line(LINES + 2));
    window.until("it is told", () -> window.text("#reading-state").equals("2 new lines below"));
    assertThat(isInSight(line(LINES + 2))).isFalse();
    window.push(KeyCode.CONTROL, KeyCode.END);
    window.until("it is seen", () -> isInSight(line(LINES + 2)));
    window.until("it goes on", () -> window.text("#reading-state").equals("following"));
    window.press("#reading-pause");
    window.until("it is told", () -> window.text("#reading-state").equals("paused"));
    write(line(LINES + 3));
    window.press("#reading-pause");
    window.until("it is seen", () -> isInSight(line(LINES + 3)));
  }

  /** One that may be changed is told of when it grows, one that may only be read at once. */
  @ParameterizedTest
  @ValueSource(ints = {0666, 0644})
  void aLogInTheEditorOffersToBeFollowed(int mode) throws Exception {
    String small = "/srv/levels/pump.log";
    OpenFile log =
        window
            .world("levels-web")
            .open(Caller.ROOT, small, new World.Open(false, true, true, false, false, mode));
    window.world("levels-web").chmod(Caller.ROOT, small, mode);
    log.write(0, "one\n".getBytes(UTF_8), 0, 4);
    Window.inWindow(
        () -> {
          window.desk().openFile(RemotePath.of(small));
          return null;
        });
    window.until("it is in the editor", () -> window.shownOrNull("#editor") != null);
    log.write(4, "two\n".getBytes(UTF_8), 0, 4);
    window.until(
        "it is offered", () -> window.shownOrNull("#choice-follow-it-as-it-grows") != null);
    window.press("#choice-follow-it-as-it-grows");
    window.until(
        "it is followed",
        () ->
            window.shownOrNull("#reading") instanceof CodeArea shown
                && shown.getText().equals("one\ntwo"));
  }

  @Test
  void theFileIsPagedThroughByTheKeyboard() throws Exception {
    window.clickOn("#reading");
    window.push(KeyCode.CONTROL, KeyCode.HOME);
    window.until("its front is seen", () -> isInSight(line(0)));
    int held = area.getParagraphs().size();
    window.interact(() -> area.showParagraphAtTop(held - 20));
    window.interact(() -> area.moveTo(held - 20, 0));
    for (int i = 0; i < 4; i++) {
      window.push(KeyCode.PAGE_DOWN);
    }
    window.until("it is read on", () -> isAtLeast(held));
    window.push(KeyCode.ALT, KeyCode.G);
    window.fill("#reading-place", "12:30:15");
    window.push(KeyCode.ENTER);
    window.until("the time is seen", () -> isInSight(line((12 * 60 + 30) * 60 + 15)));
    window.push(KeyCode.ALT, KeyCode.G);
    window.fill("#reading-place", "20001");
    window.push(KeyCode.ENTER);
    window.until("the line is seen", () -> isInSight(line(20_000)));
  }

  /** What tells of rows while they are laid out must not have them laid out again meanwhile. */
  @Test
  void rowsStayInSightWhileTheSpaceForThemChanges() throws Exception {
    window.clickOn("#reading");
    for (int i = 0; i < 5; i++) {
      window.push(KeyCode.CONTROL, KeyCode.F);
      window.push(KeyCode.ESCAPE);
      window.push(KeyCode.CONTROL, KeyCode.END);
      window.clickOn("#reading");
    }
    window.until("the end is shown", () -> isInSight(line(LINES - 1)));
  }

  private boolean isAtLeast(int number) {
    // None is in sight between two texts, until the window is laid out again.
    return area.getVisibleParagraphs().stream()
        .findFirst()
        .map(paragraph -> paragraph.getText())
        .filter(shown -> !shown.isEmpty() && shown.compareTo(line(number)) > 0)
        .isPresent();
  }

  @Test
  void linesAreFoundAndFiltered() throws Exception {
    window.clickOn("#reading");
    window.push(KeyCode.CONTROL, KeyCode.F);
    window.fill("#reading-find", "2026-11-28 03:03:0[0-3]");
    window.clickOn("#reading-expression");
    assertThat(((CheckBox) window.shown("#reading-expression")).isSelected()).isTrue();
    window.clickOn("#reading-find");
    window.push(KeyCode.ENTER);
    window.until("it is found", () -> area.getSelectedText().equals("2026-11-28 03:03:03"));
    window.push(KeyCode.ENTER);
    window.until("the one above", () -> area.getSelectedText().equals("2026-11-28 03:03:02"));
    window.push(KeyCode.F3);
    window.until("the one below", () -> area.getSelectedText().equals("2026-11-28 03:03:03"));
    window.push(KeyCode.F3);
    window.until("there is none", () -> window.text("#reading-outcome").equals("none below"));
    window.push(KeyCode.ESCAPE);
    window.press("#reading-end");
    window.until("the end is shown", () -> isInSight(line(LINES - 1)));
    window.push(KeyCode.CONTROL, KeyCode.K);
    @SuppressWarnings("unchecked")
    ChoiceBox<String> level = (ChoiceBox<String>) window.shown("#reading-level");
    window.interact(() -> level.setValue("Problems"));
    window.until(
        "only those are shown",
        () ->
            area.getParagraphs().size() > 10
                && area.getText().lines().allMatch(line -> line.contains("error:")));
    write(line(LINES) + "2026-11-29 00:00:00 error: the pump is off\n");
    window.until("it is seen", () -> isInSight("2026-11-29 00:00:00 error: the pump is off"));
    assertThat(area.getText()).doesNotContain(line(LINES).strip());
  }
}
