package zander.suite.window;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.TableView;
import org.fxmisc.richtext.CodeArea;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileState;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.journal.NewChange;
import zander.core.rights.Mode;
import zander.desk.file.FileModel;
import zander.desk.folder.Column;
import zander.desk.folder.FolderModel;
import zander.desk.history.JournalModel;
import zander.desk.history.JournalSheet;
import zander.desk.model.DeskModel;
import zander.desk.shell.ShellModel;
import zander.desk.work.StallProbe.Stall;
import zander.suite.SystemSshd;

/** How long the window does not answer, and how long things take, at the sizes of life. */
public final class WindowSizes {
  private static final String ACCOUNT = "zndwindow";
  private static final int MANY = 100_000;
  private static final int SOME = 25_000;
  private static final int HERE = 50_000;

  /**
   * One measurement.
   *
   * @param work of the interface thread in the longest time without an answer, in milliseconds
   * @param seconds until it was done, by the clock
   */
  public record Row(String what, String size, long work, double seconds) {}

  /**
   * @param patience milliseconds of work that a person would not wait for, at the pace of this run
   */
  public record Measured(List<Row> rows, long patience) {}

  private final List<Row> rows = new ArrayList<>();
  private final SystemSshd server;
  private final Path folder;
  private OffscreenWindow window;
  private DeskModel desk;

  private WindowSizes(Path folder, SystemSshd server) {
    this.folder = folder;
    this.server = server;
  }

  interface Work {
    void run() throws Exception;
  }

  void measure(String what, String size, Work work) throws Exception {
    window.probe.takeLongest();
    long start = System.nanoTime();
    work.run();
    double seconds = (System.nanoTime() - start) / 1e9;
    // What the change still has to draw.
    for (int pulse = 0; pulse < 4; pulse++) {
      window.run(javafx.application.Platform::requestNextPulse);
      TimeUnit.MILLISECONDS.sleep(20);
    }
    Stall longest = window.probe.takeLongest();
    rows.add(new Row(what, size, longest.work(), seconds));
  }

  /** Measures all three times: the first round warms the program up, the better of two counts. */
  public static Measured of(Path folder) throws Exception {
    try (SystemSshd server = new SystemSshd(folder, List.of(ACCOUNT), List.of())) {
      WindowSizes sizes = new WindowSizes(folder, server);
      sizes.makeFiles();
      try (OffscreenWindow window = new OffscreenWindow(folder.resolve("here"), server)) {
        sizes.window = window;
        sizes.all();
        long before = Pace.patience(window);
        List<Row> second = sizes.all();
        List<Row> third = sizes.all();
        List<Row> better = new ArrayList<>();
        for (int i = 0; i < second.size(); i++) {
          boolean earlier = second.get(i).work() < third.get(i).work();
          better.add(earlier ? second.get(i) : third.get(i));
        }
        return new Measured(better, Math.max(before, Pace.patience(window)));
      }
    }
  }

  private Path there() {
    return folder.resolve(ACCOUNT);
  }

  private void makeFiles() throws Exception {
    Path there = there();
    shell(
        "mkdir -p many some few; cd many; seq -f 'reading-%.0f.csv' 1 "
            + MANY
            + " | xargs touch; chmod 666 reading-77777.csv");
    shell("cd some; seq -f 'level-%.0f.txt' 1 " + SOME + " | xargs touch");
    String line = "station \"weir-09\" { level 1.42; flow 12.1; } # reading of the day, state ok\n";
    Files.writeString(there.resolve("large.conf"), line.repeat(10_000_000 / line.length()));
    Files.writeString(there.resolve("line.js"), "var a=[1,2,\"abc\"];".repeat(280_000));
    Path here = Files.createDirectories(folder.resolve("here/home/many"));
    SystemSshd.run(
        "sh", "-c", "cd $0; seq -f 'here-%.0f' 1 " + HERE + " | xargs touch", here.toString());
  }

  private void shell(String script) throws Exception {
    SystemSshd.run(
        "sh", "-c", "cd $0; " + script + "; chown -R " + ACCOUNT + ": $0", there().toString());
  }

  private List<Row> all() throws Exception {
    rows.clear();
    desk = window.open("levels", ACCOUNT, server.port(), there(), window.home());
    selecting();
    deleting();
    thisComputer();
    editing();
    new ReadingSizes(this, window, desk).of(there().resolve("levels.log"));
    shell();
    journal();
    DeskModel over = desk;
    window.run(() -> window.model.close(over));
    return List.copyOf(rows);
  }

  private FolderModel go(String name, int entries) throws Exception {
    FolderModel shown = desk.folder();
    window.run(() -> shown.go(RemotePath.of(there().resolve(name).toString())));
    window.until(
        name + " is listed",
        () -> shown.rows().size() == entries && !shown.loadingProperty().get());
    return shown;
  }

  private void selecting() throws Exception {
    measure("list a folder", "100,000", () -> go("many", MANY));
    FolderModel shown = desk.folder();
    TableView<?> table = (TableView<?>) window.shown("#server-table");
    measure("select all", "100,000", () -> window.run(table.getSelectionModel()::selectAll));
    measure(
        "drop the selection",
        "100,000",
        () -> window.run(table.getSelectionModel()::clearSelection));
    String word = "g-99999.cs";
    measure(
        "narrow by ten letters",
        "100,000",
        () -> {
          for (int i = 1; i <= word.length(); i++) {
            String typed = word.substring(0, i);
            window.run(() -> shown.narrowProperty().set(typed));
          }
          window.until("it is narrowed", () -> shown.rows().size() == 1);
        });
    measure(
        "clear it",
        "100,000",
        () -> {
          window.run(() -> shown.narrowProperty().set(""));
          window.until("all are back", () -> shown.rows().size() == MANY);
        });
    measure(
        "sort by notes",
        "100,000",
        () -> {
          Object first = shown.rows().get(0);
          window.run(() -> shown.orderBy(Column.NOTES, true));
          window.until("it is sorted", () -> shown.rows().get(0) != first);
        });
    window.run(() -> shown.orderBy(Column.NAME, false));
    window.until("it is sorted back", () -> shown.rows().get(1).name().equals("reading-2.csv"));
    window.run(table.getSelectionModel()::selectAll);
    measure(
        "read again, all selected",
        "100,000",
        () -> {
          window.run(shown::refresh);
          window.until("it is read", () -> !shown.loadingProperty().get());
        });
  }

  private void deleting() throws Exception {
    FolderModel shown = go("some", SOME);
    TableView<?> table = (TableView<?>) window.shown("#server-table");
    window.run(table.getSelectionModel()::selectAll);
    measure(
        "Delete key to the question",
        "25,000",
        () -> {
          window.run(() -> new zander.desk.folder.action.DeleteActions(shown).delete());
          window.until("it is asked", () -> shown.questionProperty().get() != null);
        });
    measure(
        "hold them",
        "25,000",
        () -> {
          choose("Move to the holding folder");
          window.until("all are gone", () -> shown.rows().isEmpty());
        });
    window.until("it is over", () -> shown.questionProperty().get() == null);
    JournalModel[] journal = new JournalModel[1];
    window.run(
        () -> {
          JournalSheet.open(desk);
          journal[0] = (JournalModel) desk.currentProperty().get();
        });
    window.until("it is listed", () -> journal[0].allCount() >= SOME);
    JournalEntry first =
        desk.journal().entries().stream()
            .filter(entry -> entry.kind() == ChangeKind.DELETE)
            .filter(entry -> !desk.journal().isPutBack(entry))
            .reduce((newer, older) -> older)
            .orElseThrow();
    measure(
        "put them back",
        "25,000",
        () -> {
          window.run(
              () -> {
                journal[0].select(first);
                journal[0].putBackSince();
              });
          window.until("it is asked", () -> journal[0].questionProperty().get() != null);
          window.run(
              () -> journal[0].questionProperty().get().choices().get(0).chosen().accept(false));
          window.until(
              "they are back",
              () ->
                  journal[0].questionProperty().get() != null
                      && journal[0]
                          .questionProperty()
                          .get()
                          .said()
                          .headline()
                          .contains(" put back"));
        });
    window.run(() -> desk.close(journal[0]));
  }

  private void choose(String words) throws Exception {
    window.run(
        () ->
            desk.folder().questionProperty().get().choices().stream()
                .filter(choice -> choice.words().equals(words))
                .findFirst()
                .orElseThrow()
                .chosen()
                .accept(false));
  }

  private void thisComputer() throws Exception {
    window.run(() -> desk.local().go(folder.resolve("here/home/many")));
    window.until("it is read", () -> desk.local().rows().size() == HERE);
    TableView<?> table = (TableView<?>) window.shown("#local-table");
    window.run(table.getSelectionModel()::selectAll);
    Path more = folder.resolve("here/home/many/one more");
    Files.createFile(more);
    measure(
        "read this computer's folder again, all selected",
        "50,000",
        () -> {
          window.run(desk.local()::refresh);
          window.until("it is read", () -> desk.local().rows().size() == HERE + 1);
        });
    Files.delete(more);
    window.run(() -> desk.local().go(folder.resolve("here/home")));
  }

  private FileModel openFile(String name) throws Exception {
    window.run(() -> desk.openFile(RemotePath.of(there().resolve(name).toString())));
    window.until("it is open", () -> desk.currentProperty().get() instanceof FileModel);
    CodeArea area = (CodeArea) window.shown("#editor");
    window.until("it is shown", () -> area.getLength() > 0);
    return (FileModel) window.on(() -> desk.currentProperty().get());
  }

  private void editing() throws Exception {
    FileModel[] open = new FileModel[1];
    measure("open a text", "10 MB", () -> open[0] = openFile("large.conf"));
    CodeArea area = (CodeArea) window.shown("#editor");
    measure("its first key", "10 MB", () -> window.run(() -> area.insertText(0, "x")));
    window.run(area::undo);
    window.until("it is as it was", () -> !open[0].isUnsaved());
    window.run(() -> desk.close(open[0]));
    open[0] = openFile("line.js");
    CodeArea line = (CodeArea) window.shown("#editor");
    window.run(line::requestFocus);
    ProcessorTime.awaitIdle();
    long before = ProcessorTime.now();
    TimeUnit.SECONDS.sleep(2);
    // The share of one core, in thousandths, in the place of the work.
    rows.add(
        new Row(
            "processor with the caret in one line, of 1,000",
            "5 MB",
            (ProcessorTime.now() - before) / 2_000_000,
            2));
    window.run(() -> desk.close(open[0]));
  }

  private void shell() throws Exception {
    go("few", 0);
    window.run(desk::openShell);
    ShellModel shell = window.on(() -> desk.shells().frontProperty().get());
    window.until("it prompts", () -> shell.terminal().screenText().contains("$"));
    measure(
        "yes for five seconds",
        "",
        () -> {
          type(shell, "yes\r");
          TimeUnit.SECONDS.sleep(5);
        });
    measure(
        "the prompt after Ctrl+C",
        "",
        () -> {
          type(shell, "\003");
          window.until(
              "it prompts", () -> shell.terminal().screenText().stripTrailing().endsWith("$"));
        });
    type(shell, "yes\r");
    TimeUnit.MILLISECONDS.sleep(500);
    window.run(() -> desk.close(shell));
    TimeUnit.MILLISECONDS.sleep(500);
    long before = ProcessorTime.now();
    TimeUnit.SECONDS.sleep(2);
    rows.add(
        new Row(
            "processor after a pouring shell was closed, of 1,000",
            "",
            (ProcessorTime.now() - before) / 2_000_000,
            2));
  }

  private static void type(ShellModel shell, String text) {
    shell.terminal().type(text.getBytes(StandardCharsets.UTF_8));
  }

  private void journal() throws Exception {
    Journal journal = desk.journal();
    if (journal.entries().stream().noneMatch(entry -> entry.path().name().equals("made-24999"))) {
      FileState state =
          FileState.of(new RemoteAttributes(FileKind.FILE, 1, 1000, 1000, new Mode(0644), 0, 0));
      List<NewChange> changes = new ArrayList<>();
      for (int i = 0; i < SOME; i++) {
        changes.add(
            NewChange.of(ChangeKind.MAKE_FILE, RemotePath.of("/srv/made-" + i))
                .states(null, state));
      }
      for (Journal.Pending one : journal.begin(changes)) {
        one.done();
      }
    }
    JournalModel[] model = new JournalModel[1];
    window.run(
        () -> {
          JournalSheet.open(desk);
          model[0] = (JournalModel) desk.currentProperty().get();
        });
    window.until("it is listed", () -> model[0].allCount() >= SOME);
    measure(
        "search in the journal",
        journal.entries().size() / 1000 + ",000",
        () -> {
          for (String typed : List.of("m", "ma", "mad", "made-", "made-24999")) {
            window.run(() -> model[0].searchProperty().set(typed));
          }
          window.until("it is found", () -> model[0].allCount() == 1);
        });
    window.run(() -> desk.close(model[0]));
  }

  /** Prints the table. */
  public static void main(String[] arguments) throws Exception {
    Path folder = Files.createTempDirectory("window-sizes");
    System.out.printf("%-52s %-8s %10s %8s%n", "what", "size", "work in ms", "seconds");
    for (Row row : of(folder).rows()) {
      System.out.printf(
          "%-52s %-8s %10d %8.2f%n", row.what(), row.size(), row.work(), row.seconds());
    }
    SystemSshd.run("rm", "-rf", folder.toString());
    System.exit(0);
  }
}
