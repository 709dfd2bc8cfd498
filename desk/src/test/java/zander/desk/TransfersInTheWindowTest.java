package zander.desk;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.File;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import javafx.scene.input.KeyCode;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.core.phrase.Phrase;
import zander.core.seal.ContentSeal;
import zander.core.transfer.compare.TransferPlan.Deed;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.resume.ResumeFolder;
import zander.core.transfer.resume.SavedTransfer;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.desk.file.FileModel;
import zander.desk.transfer.CheckModel;
import zander.desk.transfer.PlanModel;
import zander.desk.transfer.TransferListModel;
import zander.standin.world.Caller;
import zander.standin.world.World;

/** Planning, rules, questions, the list and the report of transfers, with keys and mouse. */
class TransfersInTheWindowTest {
  private static final String THERE = "/srv/levels/site/pages";

  @TempDir Path folder;
  private Window window;
  private Path here;

  @BeforeEach
  void open() throws Exception {
    window = new Window(folder);
    here = Files.createDirectories(window.demo().siteFolder().resolve("pages"));
    for (String name : new String[] {"a.html", "b.html", "c.txt", "d.txt"}) {
      Files.writeString(here.resolve(name), "from here, " + name + "\n");
    }
    Files.writeString(here.resolve("new.html"), "new\n");
    Files.writeString(here.resolve("a.html~"), "left by an editor");
    World world = window.world("levels-web");
    world.mkdir(Caller.ROOT, THERE, 0775);
    for (String name : new String[] {"a.html", "b.html", "c.txt", "d.txt", "only-there.html"}) {
      makeThere(world, name);
    }
    world.chown(Caller.ROOT, THERE, 1004, 33, false);
    window.openLevelsWeb();
  }

  private static void makeThere(World world, String name) throws Exception {
    byte[] content = ("there: " + name + "\n").getBytes(UTF_8);
    world
        .open(Caller.ROOT, THERE + "/" + name, new World.Open(false, true, true, true, false, 0664))
        .write(0, content, 0, content.length);
    world.setTimes(Caller.ROOT, THERE + "/" + name, 1_600_000_000, 1_600_000_000);
    world.chown(Caller.ROOT, THERE + "/" + name, 1004, 33, false);
  }

  @AfterEach
  void close() throws Exception {
    window.demo().server("levels-web").faults().setDelay(Duration.ZERO);
    window.close();
  }

  private String there(String name) throws Exception {
    return window.content(THERE + "/" + name);
  }

  private Progress untilOver() {
    window.until(
        "it is over",
        () ->
            window.desk().transfers().current() != null
                && window.desk().transfers().current().isOver());
    return window.desk().transfers().current().progress();
  }

  @Test
  void plansAsksOnceForAKindAndChecks() throws Exception {
    window.choose("#local-table", "pages");
    window.push(KeyCode.CONTROL, KeyCode.P);
    window.until(
        "it is planned",
        () ->
            window.desk().currentProperty().get() instanceof PlanModel made
                && made.planProperty().get() != null
                && made.planProperty().get().complete());
    PlanModel plan = (PlanModel) window.desk().currentProperty().get();
    assertThat(plan.planProperty().get().sum(Deed.ARRIVES).count()).isEqualTo(1);
    assertThat(plan.planProperty().get().sum(Deed.IS_ASKED).count()).isEqualTo(4);
    assertThat(plan.planProperty().get().sum(Deed.ONLY_THERE).count()).isEqualTo(1);
    assertThat(plan.planProperty().get().leftOut()).containsEntry(Phrase.quoted("*~"), 1L);
    window.press("#plan-begin");
    window.press("#for-kind");
    window.press("#choice-replace");
    window.until("the next is asked", () -> window.text("#for-kind").equals("for all .txt"));
    window.press("#for-kind");
    window.press("#choice-skip");
    Progress progress = untilOver();
    assertThat(progress.phase()).isEqualTo(Phase.DONE);
    assertThat(there("a.html")).isEqualTo("from here, a.html\n");
    assertThat(there("b.html")).isEqualTo("from here, b.html\n");
    assertThat(there("c.txt")).isEqualTo("there: c.txt\n");
    assertThat(there("new.html")).isEqualTo("new\n");
    assertThat(window.world("levels-web").list(Caller.ROOT, THERE)).doesNotContain("a.html~");
    window.choose("#local-table", "pages");
    window.push(KeyCode.CONTROL, KeyCode.E);
    window.until(
        "it is compared",
        () ->
            window.desk().currentProperty().get() instanceof CheckModel check
                && check.reportProperty().get() != null
                && check.reportProperty().get().complete());
    assertThat(window.text("#check-outcome")).startsWith("3 differ; 3 files");
  }

  private void planAMirror(String deleted) throws Exception {
    window.press("#rule");
    window.until("the rules are shown", () -> window.shownOrNull("#rule-replace") != null);
    window.clickOn(window.shown("#rule-replace"));
    window.choose("#local-table", "pages");
    window.push(KeyCode.CONTROL, KeyCode.P);
    window.press("#plan-mirror");
    window.until(
        "it is planned",
        () ->
            ((PlanModel) window.desk().currentProperty().get()).mayBegin()
                && window.text("#plan-sums").contains(deleted + " deleted there"));
  }

  /** Equal names of several folders all go; what has come here since the plan was made does not. */
  @Test
  void aMirrorDeletesWhatIsOnlyThereWhenTheTransferIsOver() throws Exception {
    World world = window.world("levels-web");
    for (String name : new String[] {"a", "b", "c"}) {
      Files.createDirectory(here.resolve(name));
      world.mkdir(Caller.ROOT, THERE + "/" + name, 0775);
      makeThere(world, name + "/old");
      world.chown(Caller.ROOT, THERE + "/" + name, 1004, 33, false);
    }
    planAMirror("4");
    Files.writeString(here.resolve("only-there.html"), "here by now\n");
    window.press("#plan-begin");
    untilOver();
    window.until(
        "what stayed is told",
        () ->
            window.desk().folder().questionProperty().get() != null
                && window
                    .desk()
                    .folder()
                    .questionProperty()
                    .get()
                    .said()
                    .headline()
                    .equals("1 entry of the plan changed meanwhile and stayed"));
    assertThat(there("only-there.html")).isEqualTo("here by now\n");
    for (String name : new String[] {"a", "b", "c"}) {
      assertThat(world.list(Caller.ROOT, THERE + "/" + name)).doesNotContain("old");
    }
  }

  @Test
  void makesAMirrorOnlyAfterItsPlanAndKeepsWhatItDeletes() throws Exception {
    planAMirror("1");
    window.press("#plan-begin");
    untilOver();
    window.until(
        "it is gone",
        () -> {
          try {
            return !window.world("levels-web").list(Caller.ROOT, THERE).contains("only-there.html");
          } catch (java.io.IOException e) {
            return false;
          }
        });
    assertThat(window.desk().journal().entries())
        .anyMatch(entry -> entry.path().text().endsWith("only-there.html") && entry.isDone());
    assertThat(window.text("#rule")).contains("replace");
  }

  @Test
  void showsWhatFailedAndTriesItAgain() throws Exception {
    World world = window.world("levels-web");
    world.chown(Caller.ROOT, THERE, 0, 0, false);
    world.chmod(Caller.ROOT, THERE, 0755);
    window.press("#rule");
    window.until("the rules are shown", () -> window.shownOrNull("#rule-skip") != null);
    window.clickOn(window.shown("#rule-skip"));
    window.choose("#local-table", "pages");
    window.press("#send-up");
    assertThat(untilOver().failed()).isEqualTo(1);
    window.push(KeyCode.CONTROL, KeyCode.T);
    window.until(
        "the list is shown",
        () -> window.desk().currentProperty().get() instanceof TransferListModel);
    world.chown(Caller.ROOT, THERE, 1004, 33, false);
    world.chmod(Caller.ROOT, THERE, 0775);
    window.press("#card-retry-0");
    window.until("two were begun", () -> window.desk().transfers().queue().all().size() == 2);
    assertThat(untilOver().failed()).isZero();
    assertThat(there("new.html")).isEqualTo("new\n");
  }

  @Test
  void pausesAndGoesOn() throws Exception {
    Path many = Files.createDirectories(window.demo().siteFolder().resolve("many"));
    for (int i = 0; i < 6; i++) {
      Files.write(many.resolve("feed-" + i), new byte[500_000]);
    }
    window.push(KeyCode.F5);
    window.choose("#local-table", "many");
    Window.inWindow(
        () -> {
          window.desk().transfers().sendUp();
          window.desk().transfers().current().limit(150_000);
          return null;
        });
    window.press("#pause-transfer");
    window.until("it is paused", () -> window.text("#transfer-line").contains("paused"));
    window.press("#pause-transfer");
    Window.inWindow(
        () -> {
          window.desk().transfers().current().limit(0);
          return null;
        });
    assertThat(untilOver().phase()).isEqualTo(Phase.DONE);
    assertThat(window.stat("/srv/levels/site/many/feed-5").size()).isEqualTo(500_000);
  }

  /** As a program that was killed leaves a transfer of the pages. */
  private void leave(Direction direction, String from, String to) throws Exception {
    SavedTransfer left =
        new SavedTransfer(
            "1-0badcafe",
            System.currentTimeMillis(),
            "levels-web",
            direction,
            from,
            to,
            List.of("pages"),
            "0badcafe",
            SavedTransfer.Kept.of(TransferRules.of(ConflictRule.REPLACE)));
    new ResumeFolder(
            window.setup.home().resolve(".local/state/zander").resolve("transfers"),
            ContentSeal.ofThisRun())
        .begin(left)
        .close();
  }

  @Test
  void goesOnWithWhatAnEarlierRunLeft() throws Exception {
    leave(Direction.SEND_UP, here.getParent().toString(), "/srv/levels/site");
    String part = ".c.txt.zander-0badcafe-1xyz";
    window
        .world("levels-web")
        .open(
            Caller.ROOT, THERE + "/" + part, new World.Open(false, true, true, true, false, 0600));
    window.world("levels-web").chown(Caller.ROOT, THERE + "/" + part, 1004, 33, false);
    window.push(KeyCode.CONTROL, KeyCode.T);
    window.press("#go-on-0");
    assertThat(untilOver().problems()).isEmpty();
    assertThat(there("c.txt")).isEqualTo("from here, c.txt\n");
    assertThat(window.world("levels-web").list(Caller.ROOT, THERE)).doesNotContain(part);
  }

  @Test
  void goesOnToAnotherServerOnceItsDeskIsOpen() throws Exception {
    leave(Direction.ACROSS, "levels-web:/srv/levels/site", "lab-box:/home/warden");
    var first = window.desk();
    window.push(KeyCode.CONTROL, KeyCode.T);
    window.press("#go-on-0");
    window.until("it says what is missing", () -> first.folder().questionProperty().get() != null);
    assertThat(first.folder().questionProperty().get().said().detail())
        .startsWith("Open that server's desk too");

    window.press("#open-server");
    window.openServer("lab-box");
    window.press("#prompt-yes");
    window.until("both are open", () -> window.desk() != null && window.desk() != first);
    Window.inWindow(
        () -> {
          window.model.currentProperty().set(first);
          return null;
        });
    window.push(KeyCode.CONTROL, KeyCode.T);
    window.press("#go-on-0");

    assertThat(untilOver().problems()).isEmpty();
    World goal = window.world("lab-box");
    assertThat(goal.list(Caller.ROOT, "/home/warden/pages")).contains("c.txt", "only-there.html");
    assertThat(goal.stat(Caller.ROOT, "/home/warden/pages/c.txt").size())
        .isEqualTo(there("c.txt").length());
  }

  @Test
  void makesCopiesReadyForTheDesktop() throws Exception {
    window.openRow("#server-table", "pages");
    window.until(
        "its rows are shown",
        () -> window.desk().folder().rows().stream().anyMatch(e -> e.name().equals("c.txt")));
    window.choose("#server-table", "a.html", "c.txt");
    assertThat(window.desk().takenOut().of(window.desk().folder().selection())).isEmpty();
    window.push(KeyCode.ALT, KeyCode.T);
    window.until(
        "they are here",
        () -> window.desk().takenOut().of(window.desk().folder().selection()).size() == 2);
    for (File copy : window.desk().takenOut().of(window.desk().folder().selection())) {
      assertThat(copy).hasContent("there: " + copy.getName());
    }
    window.until(
        "it is told",
        () ->
            window.desk().folder().questionProperty().get() != null
                && window
                    .desk()
                    .folder()
                    .questionProperty()
                    .get()
                    .said()
                    .headline()
                    .contains("can be dragged"));
    // Another version on the server is not what the copies are of.
    window
        .world("levels-web")
        .setTimes(Caller.ROOT, THERE + "/c.txt", 1_700_000_000, 1_700_000_000);
    window.push(KeyCode.F5);
    window.until(
        "it is seen",
        () -> window.desk().takenOut().of(window.desk().folder().selection()).isEmpty());
  }

  @Test
  void runsACommandAfterSendingUpAndBringsTheOpenFileToItsPlace() throws Exception {
    window.press("#rule");
    window.press("#rule-after");
    window.put("#rule-command", "cp pages/new.html told.html && echo told");
    window.press("#choice-save");
    assertThat(window.text("#rule")).contains("then cp pages/new.html");
    Window.inWindow(
        () -> {
          var transfers = window.desk().transfers();
          transfers
              .rules()
              .change(transfers.rules().rulesProperty().get().whenExists(ConflictRule.REPLACE));
          return null;
        });
    window.choose("#local-table", "pages");
    window.push(KeyCode.CONTROL, KeyCode.UP);
    window.until(
        "it ran",
        () -> {
          var asked = window.desk().folder().questionProperty().get();
          return asked != null && asked.said().headline().startsWith("Ran after sending up");
        });
    assertThat(window.desk().folder().questionProperty().get().said().detail()).isEqualTo("told");
    assertThat(window.content("/srv/levels/site/told.html")).isEqualTo("new\n");
    Window.inWindow(
        () -> {
          window.desk().goTo(RemotePath.of(THERE));
          return null;
        });
    window.openRow("#server-table", "only-there.html");
    window.until(
        "the file is open", () -> window.desk().currentProperty().get() instanceof FileModel);
    window.push(KeyCode.CONTROL, KeyCode.B);
    window.until("it is in its place", () -> Files.exists(here.resolve("only-there.html")));
    assertThat(here.resolve("only-there.html")).hasContent("there: only-there.html\n");
  }
}
