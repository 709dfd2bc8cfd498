package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.control.TextField;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.transfer.progress.Progress;
import zander.desk.file.FileModel;
import zander.desk.shell.ShellModel;
import zander.desk.work.Message;
import zander.standin.world.Caller;

/** A person's whole way through the window, and what the server has afterwards. */
class WholePathTest {
  @TempDir Path folder;

  @Test
  void opensEditsSetsRightsCrossesAndUsesAShell() throws Exception {
    try (Window window = new Window(folder)) {
      openTheServer(window);
      goAround(window);
      editAFile(window);
      setRights(window);
      sendUpAndBringDown(window);
      useAShell(window);
    }
  }

  private static void openTheServer(Window window) throws Exception {
    window.openServer("levels-web");
    window.until("the host key is asked", () -> window.shownOrNull("#fingerprint") != null);
    String shown = ((TextField) window.shown("#fingerprint")).getText();
    assertThat(shown).startsWith("SHA256:");
    assertThat(window.setup.knownHosts()).content().doesNotContain("levels-web");
    window.press("#prompt-yes");
    window.until("the desk is open", () -> window.desk() != null);
    assertThat(window.setup.knownHosts())
        .content()
        .contains("levels-web.riverwatch.example ssh-ed25519 ");
    assertThat(window.desk().whoAmI().uid()).isEqualTo(1004);
  }

  private static void goAround(Window window) {
    window.cell("#server-table", "index.html");
    window.openRow("#server-table", "stations");
    window.cell("#server-table", "station-001.html");
    window.press("#up");
    window.until("back in the site", () -> path(window).equals("/srv/levels/site"));
    window.push(KeyCode.CONTROL, KeyCode.L);
    window.fill("#server-path-field", "/etc/levels");
    window.push(KeyCode.ENTER);
    window.cell("#server-table", "site.conf");
    window.push(KeyCode.CONTROL, KeyCode.L);
    window.fill("#server-path-field", "../../srv/levels/site");
    window.push(KeyCode.ENTER);
    window.cell("#server-table", "contact.html");
  }

  private static String path(Window window) {
    return window.desk().folder().path().text();
  }

  private static void editAFile(Window window) throws Exception {
    String before = window.content("/srv/levels/site/contact.html");
    window.openRow("#server-table", "contact.html");
    window.until("the editor is open", () -> window.shownOrNull("#editor") != null);
    window.clickOn(window.shown("#editor"));
    window.push(KeyCode.CONTROL, KeyCode.HOME);
    window.write("new first line");
    window.push(KeyCode.ENTER);
    FileModel file = (FileModel) window.desk().currentProperty().get();
    window.until("it is unsaved", () -> file.unsavedProperty().get());
    assertThat(window.content("/srv/levels/site/contact.html")).isEqualTo(before);
    window.push(KeyCode.CONTROL, KeyCode.S);
    window.until("it is saved", () -> !file.unsavedProperty().get());
    assertThat(window.content("/srv/levels/site/contact.html"))
        .isEqualTo("new first line\n" + before);
    var stat = window.stat("/srv/levels/site/contact.html");
    assertThat(stat.mode()).isEqualTo(0664);
    assertThat(stat.uid()).isEqualTo(1004);
    assertThat(stat.gid()).isEqualTo(33);
    assertThat(window.world("levels-web").list(Caller.ROOT, "/srv/levels/site"))
        .noneMatch(name -> name.contains(".zander-"));
    window.push(KeyCode.CONTROL, KeyCode.W);
    window.until(
        "the folder is in front",
        () -> window.desk().currentProperty().get() == window.desk().folder());
  }

  private static void setRights(Window window) throws Exception {
    window.choose("#server-table", "contact.html");
    window.until("the panel shows it", () -> window.text("#octal").equals("0664"));
    assertThat(window.text("#sum-g")).isEqualTo("4+2 = 6");
    assertThat(window.text("#symbolic")).isEqualTo("ug=rw,o=r");
    window.press("#box-gw");
    assertThat(window.text("#octal")).isEqualTo("0644");
    assertThat(window.text("#sum-g")).isEqualTo("4 = 4");
    window.fill("#symbolic", "o=,g+x");
    assertThat(window.text("#octal")).isEqualTo("0670");
    window.fill("#octal", "640");
    assertThat(window.isOn("#box-or")).isFalse();
    assertThat(window.isOn("#box-gr")).isTrue();

    window.choose("#server-table", "contact.html", "water.css");
    window.until("two are selected", () -> window.desk().rights().entries().size() == 2);
    window.fill("#octal", "2660");
    window.fill("#group", "warden");
    window.press("#set-rights");
    window.until(
        "they are set", () -> window.desk().rights().outcomeProperty().get().startsWith("set and"));
    for (String name : new String[] {"contact.html", "water.css"}) {
      var stat = window.stat("/srv/levels/site/" + name);
      assertThat(stat.mode()).as(name).isEqualTo(02660);
      assertThat(stat.gid()).as(name).isEqualTo(1004);
    }
    assertThat(
            window.desk().folder().rows().stream()
                .filter(e -> e.name().equals("water.css"))
                .findFirst()
                .orElseThrow()
                .group())
        .isEqualTo("warden");
    window.choose("#server-table", "alerts.html");
    window.until("the panel shows it", () -> window.text("#octal").equals("0640"));
    window.press("#box-or");
    window.press("#set-rights");
    window.until(
        "the refusal is told",
        () -> window.desk().rights().problemProperty().get().contains("no permission"));
    assertThat(window.stat("/srv/levels/site/alerts.html").mode()).isEqualTo(0640);
  }

  private static void sendUpAndBringDown(Window window) throws Exception {
    Path site = window.demo().siteFolder();
    Files.writeString(site.resolve("img/new ünit.svg"), "<svg/>");
    window.choose("#local-table", "img");
    window.press("#send-up");
    window.until("it went up", () -> window.desk().transfers().current().isOver());
    assertThat(window.desk().transfers().current().progress().phase())
        .isEqualTo(Progress.Phase.DONE);
    // The folder of the pictures belongs to another account: nothing could be added, and it is
    // told.
    window.untilWaterlineSays("48 the same, 5 failed");
    window.until(
        "each is told, and stays told",
        () ->
            !window.desk().folder().loadingProperty().get()
                && window.desk().folder().questionProperty().get() != null);
    assertThat(window.desk().folder().questionProperty().get().said().detail())
        .contains("new ünit.svg: no permission on the server (create)");
    assertThat(window.stat("/srv/levels/site/img").mode()).isEqualTo(0755);

    Path fresh = Files.createDirectories(site.resolve("spring/notes"));
    Files.writeString(fresh.resolve("levels.txt"), "Alder 2.48\n");
    Files.writeString(fresh.getParent().resolve("ünit→.txt"), "x");
    window.push(KeyCode.F5);
    window.choose("#local-table", "spring");
    window.press("#send-up");
    window.until(
        "it is there",
        () -> window.desk().folder().rows().stream().anyMatch(e -> e.name().equals("spring")));
    assertThat(window.content("/srv/levels/site/spring/notes/levels.txt"))
        .isEqualTo("Alder 2.48\n");

    Files.delete(fresh.resolve("levels.txt"));
    Files.delete(fresh);
    Files.writeString(fresh.getParent().resolve("ünit→.txt"), "changed here");
    window.choose("#server-table", "spring");
    window.press("#bring-down");
    window.press("#choice-keep-both");
    window.until("it came down", () -> window.desk().transfers().current().isOver());
    assertThat(fresh.resolve("levels.txt")).hasContent("Alder 2.48\n");
    assertThat(fresh.getParent().resolve("ünit→.txt")).hasContent("changed here");
    assertThat(fresh.getParent().resolve("ünit→-2.txt")).hasContent("x");
    window.untilWaterlineSays("2 files");
  }

  private static void useAShell(Window window) throws Exception {
    ShellModel shell = window.openShell();
    window.until(
        "it prompts in the folder",
        () -> shell.terminal().screenText().contains("/srv/levels/site$"));
    window.clickOn(window.shown("#terminal"));
    window.write("mkdir made-by-shell").push(KeyCode.ENTER);
    window.until(
        "the command ran",
        () -> {
          try {
            return window.stat("/srv/levels/site/made-by-shell").isFolder();
          } catch (Exception e) {
            return false;
          }
        });
    copyAndPaste(window, shell);
    pasteLines(window, shell);
    window.write("gauge").push(KeyCode.ENTER);
    window.until("the full-screen program draws", () -> shell.terminal().isFullScreen());
    String size = sizeOf(shell);
    window.until("it knows the size", () -> shell.terminal().screenText().contains(size));
    window.press("#shell-place");
    window.until("it follows the size", () -> shell.terminal().rows() > 20);
    String larger = sizeOf(shell);
    window.until("it was told", () -> shell.terminal().screenText().contains(larger));
    window.clickOn(window.shown("#terminal"));
    window.write("q");
    window.until("it is left", () -> !shell.terminal().isFullScreen());
    window.write("exit").push(KeyCode.ENTER);
    window.until("the shell has ended", () -> !shell.endedProperty().get().isEmpty());
    window.until(
        "the listing shows what the command made",
        () ->
            window.desk().folder().allProperty().get().stream()
                .anyMatch(e -> e.name().equals("made-by-shell")));
  }

  /** Marks a word with the mouse, copies it, pastes it behind a command, and scrolls back. */
  /** The shell of the demo takes every line at once: it is asked about, and shown what hides. */
  private static void pasteLines(Window window, ShellModel shell) {
    window.interact(
        () -> {
          ClipboardContent content = new ClipboardContent();
          content.putString("echo \u200bone\nmkdir pasted-two\u0003");
          Clipboard.getSystemClipboard().setContent(content);
        });
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.V);
    window.until("it asks", () -> shell.questionProperty().get() != null);
    Message said = shell.questionProperty().get().said();
    assertThat(said.headline()).isEqualTo("Run 2 lines from the clipboard?");
    assertThat(said.detail())
        .contains("echo \\u200bone\nmkdir pasted-two\\x03")
        .contains("left out");
    window.press("#choice-cancel");
    window.until("it is gone", () -> shell.questionProperty().get() == null);
    assertThat(shell.terminal().screenText()).doesNotContain("pasted");
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.V);
    window.press("#choice-run");
    // The last of them had no line end: it waits for the person.
    window.until(
        "it is typed", () -> shell.terminal().screenText().strip().endsWith("mkdir pasted-two"));
    window.push(KeyCode.ENTER);
    window.until(
        "both ran, without the key that nobody pressed",
        () -> {
          try {
            return window.stat("/srv/levels/site/pasted-two").isFolder();
          } catch (Exception e) {
            return false;
          }
        });
    window.write("rmdir pasted-two").push(KeyCode.ENTER);
  }

  private static void copyAndPaste(Window window, ShellModel shell) throws Exception {
    window.write("clear").push(KeyCode.ENTER);
    window.until("it is cleared", () -> !shell.terminal().screenText().contains("mkdir"));
    window.write("sha256sum robots.txt").push(KeyCode.ENTER);
    window.until("the sum is shown", () -> shell.terminal().rowText(1).endsWith("robots.txt"));
    var bounds =
        window.shown("#terminal").localToScreen(window.shown("#terminal").getBoundsInLocal());
    double row = 8 + 1.5 * (bounds.getHeight() - 16) / shell.terminal().rows();
    window.doubleClickOn(bounds.getMinX() + 100, bounds.getMinY() + row);
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.C);
    String sum = shell.terminal().rowText(1).split(" ")[0];
    assertThat(Window.inWindow(() -> Clipboard.getSystemClipboard().getString())).isEqualTo(sum);
    window.write("echo ");
    window.push(KeyCode.CONTROL, KeyCode.SHIFT, KeyCode.V);
    window.push(KeyCode.ENTER);
    window.until("it was pasted", () -> shell.terminal().screenText().contains("\n" + sum + "\n"));
    window.write("cat stations/station-001.html stations/station-002.html").push(KeyCode.ENTER);
    window.until("it scrolls", () -> shell.terminal().historyRows() > 5);
    assertThat(shell.terminal().rowText(-shell.terminal().historyRows())).isNotEmpty();
  }

  /** As the program shows it: columns by rows. */
  private static String sizeOf(ShellModel of) {
    return String.format("%d x %d", of.terminal().columns(), of.terminal().rows());
  }
}
