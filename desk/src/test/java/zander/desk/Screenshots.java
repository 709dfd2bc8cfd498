package zander.desk;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.Duration;
import javafx.scene.control.TableView;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalRules;
import zander.core.journal.NewChange;
import zander.desk.file.FileModel;
import zander.desk.find.FindModel;
import zander.desk.history.JournalModel;
import zander.desk.history.RecoveryModel;
import zander.desk.shell.ShellModel;
import zander.desk.transfer.PlanModel;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** Makes the pictures in docs/screenshots again; run by docs/make-screenshots, not as a test. */
class Screenshots {
  @TempDir Path folder;
  private Window window;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
  }

  @AfterEach
  void close() throws Exception {
    window.demo().server("levels-web").faults().setDelay(Duration.ZERO);
    window.close();
  }

  private void keep(String name) throws Exception {
    keep(window, name);
  }

  static void keep(Window window, String name) throws Exception {
    window.moveTo(640, 562);
    Path made = window.picture(name);
    Path goal = Path.of("..", "docs", "screenshots", name + ".png");
    Files.createDirectories(goal.getParent());
    Files.copy(made, goal, StandardCopyOption.REPLACE_EXISTING);
  }

  @Test
  void theBookAndTrust() throws Exception {
    Files.writeString(
        window.setup.home().resolve(".ssh/config"),
        "Host tide-desk\n  HostName tide-desk.riverwatch.example\n  User ingest\n");
    Window.inWindow(
        () -> {
          window.model.book().read();
          return null;
        });
    window.until("it is read", () -> window.shownOrNull("#config-tide-desk") != null);
    keep("server-book");
    window.press("#edit-entry");
    window.until("the form is shown", () -> window.shownOrNull("#draft-name") != null);
    window.press("#cancel-draft");
    window.openServer("levels-web");
    window.until("the host key is asked", () -> window.shownOrNull("#fingerprint") != null);
    window.press("#prompt-no");
    window.press("#dismiss-failure");
    window.openServer("mirror");
    window.until("it is stopped", () -> window.shownOrNull("#replace-proof") != null);
    keep("host-key-changed");
  }

  @Test
  void aSignInThatFailedBehindTheGate() throws Exception {
    window.world("readings-store").chmod(Caller.ROOT, "/home/warden/.ssh/authorized_keys", 0666);
    window.openServer("readings-store");
    window.press("#prompt-yes");
    window.press("#prompt-yes");
    window.until("it failed", () -> window.shownOrNull("#copy-report") != null);
    keep("sign-in-failed");
  }

  @Test
  void aKeyMadeAndPutOnAServer() throws Exception {
    window.openServer("lab-uploads");
    window.press("#prompt-yes");
    window.until("the password is asked", () -> window.shownOrNull("#secret") != null);
    window.fill("#secret", "otter-under-ice");
    window.push(KeyCode.ENTER);
    window.until("the desk is open", () -> window.desk() != null);
    window.press("#open-server");
    window.press("#page-keys");
    window.press("#make-key");
    window.fill("#key-name", "uploads");
    window.fill("#key-comment", "warden at the desk");
    window.fill("#key-passphrase", "weir under nine quiet stars");
    window.fill("#key-again", "weir under nine quiet stars");
    window.press("#make-it");
    window.press("#put-on-lab-uploads");
    window.until("the plan is there", () -> window.shownOrNull("#put-key") != null);
  }

  @Test
  void aLineThatIsAway() throws Exception {
    window.openLevelsWeb();
    window.demo().server("levels-web").close();
    window.until(
        "it waits for the next try",
        () -> window.desk().line().wordsProperty().get().contains("Next one in"));
  }

  @Test
  void theFolderAndTheRights() throws Exception {
    window.openLevelsWeb();
    window.choose("#server-table", "index.html");
    window.until("the panel shows it", () -> window.text("#octal").equals("0644"));
    keep("folder");
  }

  @Test
  void findingAndReplacing() throws Exception {
    window.openLevelsWeb();
    window.push(KeyCode.CONTROL, KeyCode.F);
    window.until("the sheet is shown", () -> window.shownOrNull("#find-text") != null);
    FindModel find = (FindModel) window.desk().currentProperty().get();
    window.put("#find-text", "Riverwatch");
    window.put("#find-names", "*.html");
    window.press("#find-now");
    window.until("it is found", () -> find.outcomeProperty().get().contains("by the server"));
    keep("find");
  }

  @Test
  void aDeletionAskedAndTheJournal() throws Exception {
    window.openLevelsWeb();
    window.openRow("#server-table", "contact.html");
    window.until("it is open", () -> window.desk().currentProperty().get() instanceof FileModel);
    FileModel file = (FileModel) window.desk().currentProperty().get();
    Window.inWindow(
        () -> {
          file.edited(file.text().replaceFirst("Riverwatch", "Riverwatch North"));
          file.save();
          return null;
        });
    window.until("it is saved", () -> !file.isUnsaved());
    window.until("the journal has it", () -> window.shownOrNull("#put-back-0") != null);
    Window.inWindow(
        () -> {
          window.desk().currentProperty().set(window.desk().folder());
          return null;
        });
    window.choose("#server-table", "contact.html");
    window.push(KeyCode.ALT, KeyCode.D);
    window.until(
        "the copy is there",
        () ->
            window.desk().folder().rows().stream()
                .anyMatch(row -> row.name().equals("contact-2.html")));
    window.choose("#server-table", "stations", "contact-2.html");
    window.push(KeyCode.DELETE);
    window.until(
        "it is counted",
        () ->
            window.shownOrNull("#strip-live") != null
                && window.text("#strip-live").contains("127 files"));
    window.press("#choice-cancel");
    window.choose("#server-table", "contact-2.html");
    window.push(KeyCode.DELETE);
    window.press("#choice-move-to-the-holding-folder");
    window.until(
        "it is gone",
        () ->
            window.desk().folder().rows().stream()
                .noneMatch(row -> row.name().equals("contact-2.html")));
    window.push(KeyCode.ALT, KeyCode.J);
    window.until("the journal is shown", () -> window.shownOrNull("#journal-table") != null);
    JournalModel journal = (JournalModel) window.desk().currentProperty().get();
    Window.inWindow(
        () -> {
          ((TableView<?>) window.shown("#journal-table")).getSelectionModel().selectLast();
          return null;
        });
    window.until("the difference is shown", () -> !journal.differenceProperty().get().isEmpty());
    window.push(KeyCode.CONTROL, KeyCode.D);
    keep("journal");
    window.push(KeyCode.CONTROL, KeyCode.D);
  }

  @Test
  void afterACrash() throws Exception {
    String site = "/srv/levels/site";
    RemotePath half = RemotePath.of(site + "/.spring-pages.zander-12ab34");
    try (FileJournal journal =
        new FileJournal(
            folder.resolve("home/.local/state/zander/journal/warden@levels-web.riverwatch.example"),
            "levels-web",
            JournalRules.USUAL)) {
      journal.begin(
          NewChange.of(ChangeKind.COPY, RemotePath.of(site + "/spring-pages"))
              .part(half)
              .note(site + "/stations"));
      journal.begin(NewChange.of(ChangeKind.PURGE, RemotePath.of(site + "/uploads")));
      journal.begin(NewChange.of(ChangeKind.MAKE_FOLDER, RemotePath.of(site + "/2027")));
    }
    window.world("levels-web").mkdir(Caller.ROOT, half.wire(), 0755);
    window.openServer("levels-web");
    window.press("#prompt-yes");
    window.until(
        "it is told",
        () ->
            window.desk() != null
                && window.desk().currentProperty().get() instanceof RecoveryModel);
    keep("after-a-crash");
  }

  @Test
  void theTransfer() throws Exception {
    window.openLevelsWeb();
    SpringPages.make(window);
    window.choose("#local-table", "spring-pages");
    window.push(KeyCode.CONTROL, KeyCode.P);
    window.until(
        "it is planned",
        () ->
            window.desk().currentProperty().get() instanceof PlanModel plan
                && plan.planProperty().get() != null
                && plan.planProperty().get().complete());
    keep("transfer-plan");
    window.press("#plan-begin");
    window.until("it asks", () -> window.shownOrNull("#choice-replace") != null);
    window.press("#for-rest");
    window.press("#choice-replace");
    window.until("it is over", () -> window.desk().transfers().current().isOver());
    window.demo().server("levels-web").faults().setDelay(Duration.ZERO);
  }

  @Test
  void theListOfTransfers() throws Exception {
    window.openLevelsWeb();
    SpringPages.make(window);
    World world = window.world("levels-web");
    world.chmod(Caller.ROOT, "/srv/levels/site/spring-pages", 0755);
    world.chown(Caller.ROOT, "/srv/levels/site/spring-pages", 0, 0, false);
    window.choose("#local-table", "spring-pages");
    window.press("#rule");
    window.until("the rules are shown", () -> window.shownOrNull("#rule-skip") != null);
    window.clickOn(window.shown("#rule-skip"));
    window.press("#send-up");
    window.until("it is over", () -> window.desk().transfers().current().isOver());
    window.demo().server("levels-web").faults().setDelay(Duration.ofMillis(6));
    Path large = Files.createDirectories(window.demo().siteFolder().resolve("feeds"));
    for (int i = 0; i < 12; i++) {
      Files.write(large.resolve("feed-" + i + ".csv"), new byte[700_000]);
    }
    window.push(KeyCode.F5);
    window.choose("#local-table", "feeds");
    Window.inWindow(
        () -> {
          window.desk().transfers().sendUp();
          window.desk().transfers().current().limit(900_000);
          return null;
        });
    window.until(
        "some is up", () -> window.desk().transfers().current().progress().bytes() > 2_000_000);
    window.push(KeyCode.CONTROL, KeyCode.T);
    window.until("the list is shown", () -> window.shownOrNull("#clear-over") != null);
    keep("transfer-list");
  }

  @Test
  void theShell() throws Exception {
    window.openLevelsWeb();
    window.openRow("#server-table", "contact.html");
    window.until("it is open", () -> window.desk().currentProperty().get() instanceof FileModel);
    ShellModel shell = window.openShell();
    window.until("it prompts", () -> shell.terminal().screenText().contains("$"));
    window.clickOn(window.shown("#terminal"));
    window.write("ls -l contact.html latest.html").push(KeyCode.ENTER);
    window.until("it lists", () -> shell.terminal().screenText().contains("warden   web"));
    keep("shell-below-the-editor");
    window.press("#shell-place");
    window.until("it is a sheet", () -> shell.terminal().rows() > 20);
    window.clickOn(window.shown("#terminal"));
    window.write("gauge").push(KeyCode.ENTER);
    window.until("it draws", () -> shell.terminal().screenText().contains("Long Reach"));
  }
}
