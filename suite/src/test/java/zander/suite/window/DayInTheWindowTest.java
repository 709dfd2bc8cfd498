package zander.suite.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.management.ManagementFactory;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.TableView;
import org.fxmisc.richtext.CodeArea;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.JournalEntry;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.desk.file.FileModel;
import zander.desk.find.FindModel;
import zander.desk.folder.FolderModel;
import zander.desk.folder.action.DeleteActions;
import zander.desk.history.JournalModel;
import zander.desk.history.JournalSheet;
import zander.desk.model.DeskModel;
import zander.desk.sheet.Question;
import zander.desk.sheet.Sheet;
import zander.desk.shell.ShellModel;
import zander.desk.work.StallProbe.Stall;
import zander.standin.server.Relay;
import zander.suite.SystemSshd;

/**
 * A long day of an administrator in some minutes: desks, files, transfers, a large folder, shells,
 * and lines that break. The window always answers, and in the evening all is as in the morning.
 */
class DayInTheWindowTest {
  private static final String ACCOUNT = "zndday";
  private static final int MANY = 100_000;

  private static final long HEAP = 20L << 20;

  @TempDir Path folder;
  private SystemSshd server;
  private Relay relay;
  private OffscreenWindow window;
  private Path there;

  /** How much of everything there is in a day. */
  private record Day(int sheets, int transfers, int asking, int shellBytes, int found) {}

  private static final Day SHORT = new Day(20, 4, 2, 2_000_000, 500);
  private static final Day LONG = new Day(200, 20, 6, 25_000_000, 5_000);

  @BeforeEach
  void morning() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    server = new SystemSshd(folder, List.of(ACCOUNT), List.of());
    relay = new Relay(server.port());
    there = folder.resolve(ACCOUNT);
    SystemSshd.run(
        "sh",
        "-c",
        "cd $0; mkdir many site up; (cd many; seq -f 'reading-%.0f.csv' 1 "
            + MANY
            + " | xargs touch); for i in $(seq 50); do echo page $i > site/page-$i.html; done;"
            + " chown -R "
            + ACCOUNT
            + ": .",
        there.toString());
    window = new OffscreenWindow(folder.resolve("here"), server);
    for (int i = 0; i < LONG.transfers; i++) {
      Files.writeString(window.home().resolve("sent-" + i), "sent " + i + "\n".repeat(1000));
    }
  }

  @AfterEach
  void close() throws Exception {
    if (window != null) {
      window.close();
      relay.close();
      server.close();
    }
  }

  @Test
  @Timeout(value = 600, unit = TimeUnit.SECONDS)
  void theWindowAlwaysAnswersAndNothingStays() throws Exception {
    live(SHORT);
    long heap = heap();
    long before = Pace.patience(window);
    window.probe.takeLongest();
    live(LONG);
    Stall longest = window.probe.takeLongest();
    System.out.println(
        "longest "
            + (longest.work() > 120 ? longest.where() : "")
            + " "
            + longest.wall()
            + " ms, of it work "
            + longest.work());
    long patience = Math.max(before, Pace.patience(window));
    assertThat(longest.work()).as(longest.toString()).isLessThanOrEqualTo(patience);
    System.out.println("heap " + heap / 1000 + " kB, then " + heap() / 1000 + " kB");
    assertThat(heap()).isLessThanOrEqualTo(heap + HEAP);
    window.until("nobody is signed in", () -> server.sessionCount() == 0);
    // What was replaced is held, as it should be; nothing else, and no place that is empty.
    assertThat(
            SystemSshd.run(
                "sh",
                "-c",
                "cd $0; find . -name '*.zander-*' ! -name .zander-held;"
                    + " find .zander-held -mindepth 1 -type d -empty;"
                    + " find .zander-held -type f -exec grep -L 'other\\|sent' {} +",
                there.toString()))
        .isEmpty();
    assertThat(SystemSshd.run("sh", "-c", "ps -o pid= -u " + ACCOUNT + " || true")).isBlank();
    assertThat(there.resolve("many").toFile().list()).hasSize(MANY);
  }

  private static long heap() throws Exception {
    long least = Long.MAX_VALUE;
    for (int i = 0; i < 5; i++) {
      System.gc();
      TimeUnit.MILLISECONDS.sleep(300);
      least = Math.min(least, ManagementFactory.getMemoryMXBean().getHeapMemoryUsage().getUsed());
    }
    return least;
  }

  private void live(Day day) throws Exception {
    DeskModel site = window.open("site", ACCOUNT, server.port(), there.resolve("site"), home());
    DeskModel far = window.open("far", ACCOUNT, relay.port(), there.resolve("site"), home());
    DeskModel many = window.open("many", ACCOUNT, server.port(), there.resolve("up"), home());
    open(site, day.sheets);
    transfer(many, day);
    breakTheLine(far);
    largeFolder(many, day);
    shells(site, day);
    breakTheLine(far);
    for (DeskModel desk : List.of(site, far, many)) {
      window.run(() -> window.model.close(desk));
    }
    window.until("all are closed", () -> window.model.desks().isEmpty());
  }

  private Path home() {
    return window.home();
  }

  private void front(DeskModel desk) throws Exception {
    window.run(() -> window.model.currentProperty().set(desk));
  }

  /** Opens files, changes and saves some, and closes them, up to ten at a time. */
  private void open(DeskModel desk, int sheets) throws Exception {
    front(desk);
    for (int i = 0; i < sheets; i++) {
      String name = "page-" + (1 + i % 50) + ".html";
      window.run(() -> desk.openFile(RemotePath.of(there.resolve("site/" + name).toString())));
      window.until(
          name + " is open",
          () ->
              desk.currentProperty().get() instanceof FileModel file
                  && file.path().name().equals(name));
      FileModel file = (FileModel) window.on(() -> desk.currentProperty().get());
      if (i % 5 == 0) {
        int number = i;
        CodeArea area = (CodeArea) window.shown("#editor");
        window.run(() -> area.insertText(0, "changed " + number + "\n"));
        window.run(file::save);
        window.until("it is saved", () -> !file.isUnsaved() && !file.busyProperty().get());
      }
      if (i % 10 == 9) {
        closeFiles(desk);
      }
    }
    closeFiles(desk);
  }

  private void closeFiles(DeskModel desk) throws Exception {
    window.run(
        () ->
            List.copyOf(desk.sheets()).stream()
                .filter(FileModel.class::isInstance)
                .forEach(desk::close));
  }

  private void transfer(DeskModel desk, Day day) throws Exception {
    front(desk);
    for (int i = 0; i < day.transfers; i++) {
      boolean asks = i < day.asking;
      String name = "sent-" + i;
      if (asks) {
        SystemSshd.run("sh", "-c", "echo other > $0", there.resolve("up/" + name).toString());
        SystemSshd.run("chown", ACCOUNT + ":", there.resolve("up/" + name).toString());
      }
      window.run(
          () -> {
            desk.transfers()
                .rules()
                .change(TransferRules.of(asks ? ConflictRule.ASK : ConflictRule.REPLACE));
            desk.transfers().sendUp(List.of(home().resolve(name)));
          });
    }
    window.until("those that ask do", () -> desk.transfers().asking() == day.asking);
    for (int i = day.asking; i > 0; i--) {
      int left = i - 1;
      answer(desk.folder(), "Replace");
      window.until("it is answered", () -> desk.transfers().asking() == left);
    }
    window.until("all are over", () -> !desk.transfers().queue().isBusy());
    assertThat(there.resolve("up/sent-0")).hasContent("sent 0\n" + "\n".repeat(999));
  }

  private void answer(Sheet sheet, String words) throws Exception {
    window.until("it is asked", () -> sheet.questionProperty().get() != null);
    window.run(
        () -> {
          Question asked = sheet.questionProperty().get();
          asked.choices().stream()
              .filter(choice -> choice.words().startsWith(words))
              .findFirst()
              .orElseThrow()
              .chosen()
              .accept(false);
        });
  }

  /** While a listing is under way. */
  private void breakTheLine(DeskModel desk) throws Exception {
    front(desk);
    window.run(() -> desk.folder().go(RemotePath.of(there.toString())));
    relay.cutAfter(0);
    window.until("the line is away", () -> desk.line().awayProperty().get());
    relay.heal();
    window.until("it is back", () -> !desk.line().awayProperty().get());
    window.run(() -> desk.folder().go(RemotePath.of(there.resolve("site").toString())));
    window.until("it is listed", () -> desk.folder().rows().size() == 50);
  }

  private void largeFolder(DeskModel desk, Day day) throws Exception {
    front(desk);
    FolderModel shown = desk.folder();
    window.run(() -> shown.go(RemotePath.of(there.resolve("many").toString())));
    window.until("all are listed", () -> shown.rows().size() == MANY);
    search(desk);
    for (String typed : List.of("r", "re", "reading-1", "reading-12", "")) {
      window.run(() -> shown.narrowProperty().set(typed));
    }
    window.until("all are back", () -> shown.rows().size() == MANY);
    window.run(() -> window.model.currentProperty().get().currentProperty().set(shown));
    TableView<?> table = (TableView<?>) window.shown("#server-table");
    window.run(table.getSelectionModel()::selectAll);
    window.run(table.getSelectionModel()::clearSelection);
    window.run(() -> table.getSelectionModel().selectRange(0, day.found));
    assertThat(window.on(() -> shown.selection().size())).isEqualTo(day.found);
    window.run(() -> new DeleteActions(shown).delete());
    answer(shown, "Move to the holding folder");
    window.until("they are gone", () -> shown.rows().size() == MANY - day.found);
    window.until("it is over", () -> shown.questionProperty().get() == null);
    putBack(desk);
    window.until("they are back", () -> shown.rows().size() == MANY);
  }

  private void search(DeskModel desk) throws Exception {
    window.run(() -> desk.openSheets().show(new FindModel(desk, desk.folderInFront())));
    FindModel find = (FindModel) window.on(() -> desk.currentProperty().get());
    window.run(
        () -> {
          find.namesProperty().set("*-777*.csv");
          find.find();
        });
    window.until("it is found", () -> !find.busyProperty().get());
    assertThat(window.on(() -> find.found().size())).isEqualTo(111);
    window.run(() -> desk.close(find));
  }

  private void putBack(DeskModel desk) throws Exception {
    JournalEntry first =
        desk.journal().entries().stream()
            .filter(entry -> entry.kind() == ChangeKind.DELETE)
            .filter(entry -> !desk.journal().isPutBack(entry))
            .reduce((newer, older) -> older)
            .orElseThrow();
    window.run(() -> JournalSheet.open(desk));
    JournalModel journal = (JournalModel) window.on(() -> desk.currentProperty().get());
    window.run(
        () -> {
          journal.select(first);
          journal.putBackSince();
        });
    answer(journal, "Put back all");
    window.until(
        "they are put back",
        () ->
            journal.questionProperty().get() != null
                && journal.questionProperty().get().said().headline().contains(" put back"));
    window.run(() -> desk.close(journal));
  }

  /** Two at once, each pouring half. */
  private void shells(DeskModel desk, Day day) throws Exception {
    front(desk);
    ShellModel[] shells = new ShellModel[2];
    for (int i = 0; i < shells.length; i++) {
      window.run(desk::openShell);
      shells[i] = window.on(() -> desk.shells().frontProperty().get());
      ShellModel opened = shells[i];
      window.until("it prompts", () -> opened.terminal().screenText().contains("$"));
    }
    for (ShellModel shell : shells) {
      type(
          shell,
          "head -c "
              + day.shellBytes
              + " /dev/zero | tr '\\0' 'x' | fold -w 79; echo; echo po''ured\r");
    }
    for (ShellModel shell : shells) {
      window.until("it has poured", () -> shell.terminal().screenText().contains("\npoured"));
      type(shell, "exit\r");
      window.until("it has ended", () -> !shell.endedProperty().get().isEmpty());
      window.run(() -> desk.close(shell));
    }
  }

  private static void type(ShellModel shell, String text) {
    shell.terminal().type(text.getBytes(StandardCharsets.UTF_8));
  }
}
