package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import javafx.geometry.Bounds;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.image.PixelReader;
import javafx.scene.image.WritableImage;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseButton;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.desk.file.FileModel;
import zander.desk.shell.ShellModel;
import zander.desk.shell.ShellsBelow;
import zander.desk.term.ShellColours;
import zander.desk.work.Message;

/** A shell in the window, by keyboard and mouse: what is found, marked, gone to and asked. */
class ShellInTheWindowTest {
  @TempDir Path folder;
  private Window window;
  private ShellModel shell;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    window.openLevelsWeb();
    shell = window.openShell();
    window.until("it prompts", () -> shell.terminal().screenText().contains("$"));
  }

  @AfterEach
  void close() throws Exception {
    window.close();
  }

  /** As if a program in the shell had written it. */
  private void write(ShellModel to, String text) {
    to.terminal().readAll(new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)));
  }

  private String clipboard() throws Exception {
    return Window.inWindow(() -> Clipboard.getSystemClipboard().getString());
  }

  /** Moves the mouse to the middle of a cell of the terminal. */
  private void moveTo(int column, int row) throws Exception {
    Bounds all =
        Window.inWindow(
            () -> {
              var terminal = window.shown("#terminal");
              return terminal.localToScreen(terminal.getBoundsInLocal());
            });
    double width = (all.getWidth() - 16) / shell.terminal().columns();
    double height = (all.getHeight() - 16) / shell.terminal().rows();
    window.moveTo(
        all.getMinX() + 8 + (column + 0.5) * width, all.getMinY() + 8 + (row + 0.5) * height);
  }

  @Test
  void textIsFoundInWhatHasScrolledAway() {
    StringBuilder lines = new StringBuilder("\033[2J\033[H");
    for (int i = 1; i <= 500; i++) {
      lines.append("gauge ").append(i).append(" of the river\r\n");
    }
    write(shell, lines.toString());
    window.clickOn(window.shown("#terminal"));
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.F);
    window.until("there is a field", () -> window.shownOrNull("#shell-find") != null);
    window.write("gauge 4");
    Label count = (Label) window.shown(".shell-found");
    // Of 4, 40 to 49 and 400 to 499.
    window.until("it is counted", () -> count.getText().equals("1 of 111"));
    window.push(KeyCode.ENTER);
    window.until("the one before is in front", () -> count.getText().equals("2 of 111"));
    window.push(KeyCode.SHIFT, KeyCode.ENTER);
    window.push(KeyCode.SHIFT, KeyCode.ENTER);
    window.until("it goes round", () -> count.getText().equals("111 of 111"));
    window.push(KeyCode.A).push(KeyCode.A);
    window.until("nothing is found", () -> count.getText().equals("nothing found"));
    window.push(KeyCode.ESCAPE);
    window.until("the bar is gone", () -> window.shownOrNull("#shell-find") == null);
    window.until("the shell has the keys", () -> window.shown("#terminal").isFocused());
  }

  @Test
  void theBellMarksTheTabOfAShellThatIsNotSeen() throws Exception {
    window.interact(() -> window.desk().openShell());
    window.until("there are two", () -> window.desk().shells().shells().size() == 2);
    write(shell, "\007");
    window.until("it rang", () -> shell.signals().rangProperty().get());
    Label first =
        (Label)
            window.lookup(".shell-title").queryAll().stream()
                .filter(Window::isSeen)
                .findFirst()
                .orElseThrow();
    window.until("it is marked", () -> first.getGraphic() != null);
    window.interact(() -> window.desk().shells().frontProperty().set(shell));
    window.clickOn(window.shown("#terminal"));
    window.until("it was heard", () -> !shell.signals().rangProperty().get());
  }

  @Test
  void aProgramAsksBeforeItUsesTheClipboard() throws Exception {
    write(shell, "\033]52;c;Z2F1Z2UgNyA9IDMgY20=\007");
    window.until("it asks", () -> shell.questionProperty().get() != null);
    assertThat(shell.questionProperty().get().said().detail()).contains("gauge 7 = 3 cm");
    window.interact(() -> shell.tell(new Message("another thing", "told meanwhile")));
    assertThat(shell.questionProperty().get().said().detail()).as("stays").contains("gauge 7");
    window.interact(shell::dismissQuestion);
    window.clickOn("Put it there");
    window.until("it is answered", () -> shell.questionProperty().get() == null);
    assertThat(clipboard()).isEqualTo("gauge 7 = 3 cm");
    write(shell, "\033]52;c;cm0gLXJm\007");
    window.until("it asks again", () -> shell.questionProperty().get() != null);
    window.clickOn("Never in this shell");
    window.until("it is answered", () -> shell.questionProperty().get() == null);
    write(shell, "\033]52;c;cm0gLXJm\007\033]2;over\007");
    window.until("the rest has come", () -> shell.signals().titleProperty().get().equals("over"));
    assertThat(shell.questionProperty().get()).isNull();
    assertThat(clipboard()).isEqualTo("gauge 7 = 3 cm");
  }

  @Test
  void aFileWithALineAndAFolderAreGoneTo() throws Exception {
    write(shell, "\033[2J\033[H\033]7;file://levels-web/srv/levels/site\007see contact.html:3 now");
    moveTo(8, 0);
    window.press(KeyCode.CONTROL).clickOn(MouseButton.PRIMARY).release(KeyCode.CONTROL);
    window.until("it is open", () -> window.desk().currentProperty().get() instanceof FileModel);
    FileModel file = (FileModel) window.desk().currentProperty().get();
    assertThat(file.path().text()).isEqualTo("/srv/levels/site/contact.html");
    CodeArea text = (CodeArea) window.shown("#editor");
    window.until("its line is gone to", () -> text.getCurrentParagraph() == 2);
    write(shell, "\033]7;file://levels-web/etc/levels\007");
    window.clickOn(window.shown("#terminal"));
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.Y);
    window.until(
        "the folder is shown", () -> window.desk().folder().path().text().equals("/etc/levels"));
    window.until("it is in front", () -> window.shownOrNull("#server-table") != null);
    window.clickOn(window.shown("#terminal"));
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.X);
    window.until(
        "the shell is brought there",
        () -> shell.terminal().screenText().contains("cd -- '/etc/levels'"));
  }

  @Test
  void anAddressIsAskedAbout() throws Exception {
    write(shell, "\033[2J\033[H\033]8;;https://riverwatch.example/x\033\\a page\033]8;;\033\\");
    moveTo(3, 0);
    window.press(KeyCode.CONTROL).clickOn(MouseButton.PRIMARY).release(KeyCode.CONTROL);
    window.until("it asks", () -> shell.questionProperty().get() != null);
    assertThat(shell.questionProperty().get().said().detail())
        .isEqualTo("https://riverwatch.example/x");
    window.clickOn("Cancel");
    window.until("it is answered", () -> shell.questionProperty().get() == null);
  }

  @Test
  void textIsMarkedOverRowsThatWereWrappedAndCopied() throws Exception {
    int columns = shell.terminal().columns();
    String line = "a".repeat(columns) + "bcd";
    write(shell, "\033[2J\033[Hfirst\r\n" + line + "\r\nlast");
    moveTo(2, 2);
    window.clickOn(MouseButton.PRIMARY).clickOn(MouseButton.PRIMARY).clickOn(MouseButton.PRIMARY);
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.C);
    window.until("it is copied", () -> line.equals(copied()));
    moveTo(1, 3);
    window.doubleClickOn(MouseButton.PRIMARY);
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.C);
    window.until("the word is copied", () -> "last".equals(copied()));
  }

  private static String copied() {
    return Clipboard.getSystemClipboard().getString();
  }

  @Test
  void twoAreSeenSideBySideAndTheKeysGoWhereItIsPressed() {
    int columns = shell.terminal().columns();
    window.interact(() -> window.desk().openShell());
    window.until("there are two", () -> window.desk().shells().shells().size() == 2);
    window.interact(
        () -> window.desk().shells().layoutProperty().set(ShellsBelow.Layout.SIDE_BY_SIDE));
    window.until(
        "each has half",
        () ->
            window.desk().shells().shells().stream()
                .allMatch(one -> one.terminal().columns() < columns * 2 / 3));
    window.clickOn(
        window.lookup("#terminal").queryAll().stream()
            .filter(Window::isSeen)
            .findFirst()
            .orElseThrow());
    window.until(
        "the pressed one is in front", () -> window.desk().shells().frontProperty().get() == shell);
    window.interact(() -> window.desk().close(shell));
    window.until(
        "the other has all of it",
        () -> window.desk().shells().shells().get(0).terminal().columns() == columns);
  }

  @Test
  void aServerWithoutTmuxSaysThatItKeepsNoShell() {
    window.interact(() -> window.desk().shells().openKept(window.desk().folder().path()));
    window.until(
        "it is said",
        () -> window.desk().shells().frontProperty().get().endedProperty().get().contains("tmux"));
  }

  @Test
  void aProgramThatAsksForTheMouseGetsItAndShiftMarksAllTheSame() throws Exception {
    write(shell, "\033[2J\033[Hgauges\033[?1000;1006h");
    moveTo(2, 0);
    window.doubleClickOn(MouseButton.PRIMARY);
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.C);
    assertThat(clipboard()).as("it belongs to the program").isNotEqualTo("gauges");
    window.press(KeyCode.SHIFT).doubleClickOn(MouseButton.PRIMARY).release(KeyCode.SHIFT);
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.C);
    window.until("the word is copied", () -> "gauges".equals(copied()));
  }

  @Test
  void theColoursAreChosenAndEachShellHasThem() throws Exception {
    window.interact(
        () ->
            window
                .desk()
                .settings()
                .set(zander.desk.work.Settings.SHELL_COLOURS, (long) ShellColours.LIGHT.ordinal()));
    String style = Window.inWindow(() -> window.shown("#terminal").getParent().getStyle());
    assertThat(style).contains(ShellColours.LIGHT.ground());
    write(shell, "\033]11;?\007");
    window.until(
        "a program is told the ground",
        () -> shell.terminal().screenText().contains("rgb:fbfb/fafa/f5f5"));
  }

  /** How many points of the terminal are not of its ground. */
  private int inked() {
    Node terminal = window.shown("#terminal");
    WritableImage image = terminal.snapshot(null, null);
    PixelReader points = image.getPixelReader();
    int ground = points.getArgb(2, 2);
    int count = 0;
    for (int y = 0; y < image.getHeight(); y++) {
      for (int x = 0; x < image.getWidth(); x++) {
        count += points.getArgb(x, y) == ground ? 0 : 1;
      }
    }
    return count;
  }

  @ParameterizedTest
  @ValueSource(strings = {"\033[?25l\033[5mgauge\033[m", "\033[?12h", "\033[5 q"})
  void whatBlinksComesAndGoes(String asked) {
    window.clickOn(window.shown("#terminal"));
    write(shell, "\033[2J\033[H" + asked);
    window.until("it is seen", () -> inked() > 0);
    window.until("it is gone", () -> inked() == 0);
    window.until("it is seen again", () -> inked() > 0);
  }

  @Test
  void theSizeOfTheTextIsSetByKey() {
    window.clickOn(window.shown("#terminal"));
    int columns = shell.terminal().columns();
    window.push(KeyCode.CONTROL, KeyCode.EQUALS);
    window.push(KeyCode.CONTROL, KeyCode.EQUALS);
    window.until("it is larger", () -> shell.terminal().columns() < columns);
    window.push(KeyCode.CONTROL, KeyCode.DIGIT0);
    window.until("it is as it was", () -> shell.terminal().columns() == columns);
  }
}
