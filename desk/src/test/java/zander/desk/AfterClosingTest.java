package zander.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.management.ManagementFactory;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.management.ObjectName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.book.ServerEntry;
import zander.core.files.RemotePath;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.desk.file.FileModel;
import zander.desk.model.DeskModel;
import zander.desk.shell.ShellModel;

/**
 * Days of work: after desks, files, shells and transfers are closed, their objects, threads,
 * descriptors and temporary files are gone. Counted over rounds, in the real window.
 */
class AfterClosingTest {
  /** More by {@code -Dzander.rounds}. */
  private static final int ROUNDS = Integer.getInteger("zander.rounds", 50);

  private static final int WARM = 3;

  /** What a closed one leaves behind for a moment: where the keyboard was, and the like. */
  private static final long LAST_ONES = 2;

  private static final Pattern HISTOGRAM =
      Pattern.compile("^\\s*\\d+:\\s+(\\d+)\\s+\\d+\\s+(\\S+)", Pattern.MULTILINE);

  private static final List<String> COUNTED =
      List.of(
          "zander.desk.model.DeskModel",
          "zander.desk.model.FileModel",
          "zander.desk.model.ShellModel",
          "zander.desk.view.DeskView",
          "zander.desk.view.file.FileView",
          "zander.desk.view.shell.ShellView",
          "zander.desk.term.TerminalModel",
          "zander.desk.folder.FolderModel",
          "zander.desk.transfer.TransferModel",
          "zander.core.connect.Connection",
          "zander.core.journal.FileJournal",
          "org.fxmisc.richtext.CodeArea");

  @TempDir Path folder;

  @Test
  void nothingStaysOfWhatWasClosed() throws Exception {
    Window window = new Window(folder);
    try {
      Map<String, Long> before = histogram();
      window.openLevelsWeb();
      ServerEntry entry = window.desk().entry();
      Files.writeString(window.demo().siteFolder().resolve("sent.txt"), "sent\n");
      closeDesk(window);
      for (int i = 0; i < WARM; i++) {
        round(window, entry);
      }
      long threads = threads();
      long descriptors = descriptors();
      long files = files();
      for (int i = 0; i < ROUNDS; i++) {
        round(window, entry);
      }
      await(window, before);
      window.until("threads are gone", () -> threads() <= threads + 4);
      assertThat(descriptors()).isLessThanOrEqualTo(descriptors + 4);
      // The journal has grown, in the same files; what was replaced is kept, each content once.
      assertThat(files()).isLessThanOrEqualTo(files + ROUNDS + 4);
    } finally {
      window.close();
    }
  }

  /** On a desk that stays open, the sheets that are closed go all the same. */
  @Test
  void nothingStaysOfClosedSheets() throws Exception {
    Window window = new Window(folder);
    try {
      window.openLevelsWeb();
      DeskModel desk = window.desk();
      Map<String, Long> before = histogram();
      for (int i = 0; i < ROUNDS / 3; i++) {
        openAndCloseFile(window, desk);
        useShell(window, desk);
      }
      await(window, before);
    } finally {
      window.close();
    }
  }

  /** Windows of other tests may not all be gone. */
  private static void await(Window window, Map<String, Long> before) {
    Map<String, Long> left = new TreeMap<>();
    try {
      window.until(
          "what was closed is gone",
          () -> {
            left.clear();
            left.putAll(histogram());
            return left.entrySet().stream()
                .allMatch(
                    one -> one.getValue() <= before.getOrDefault(one.getKey(), 0L) + LAST_ONES);
          });
    } catch (AssertionError e) {
      throw new AssertionError("still there: " + left, e);
    }
  }

  private void round(Window window, ServerEntry entry) throws Exception {
    Window.inWindow(
        () -> {
          window.model.open(entry);
          return null;
        });
    window.until("the desk is open", () -> window.desk() != null && isListed(window.desk()));
    DeskModel desk = window.desk();
    openAndCloseFile(window, desk);
    useShell(window, desk);
    sendUp(window, desk);
    closeDesk(window);
  }

  private static boolean isListed(DeskModel desk) {
    return desk.folder().rows().stream().anyMatch(row -> row.name().equals("index.html"));
  }

  private static void openAndCloseFile(Window window, DeskModel desk) throws Exception {
    RemotePath path = desk.folder().path().child("index.html");
    Window.inWindow(
        () -> {
          desk.openFile(path);
          return null;
        });
    window.until("it is open", () -> desk.currentProperty().get() instanceof FileModel);
    Window.inWindow(
        () -> {
          desk.close(desk.currentProperty().get());
          return null;
        });
  }

  private static void useShell(Window window, DeskModel desk) throws Exception {
    Window.inWindow(
        () -> {
          desk.openShell();
          return null;
        });
    ShellModel shell =
        (ShellModel)
            Window.inWindow(() -> desk.sheets().stream().reduce((one, last) -> last).orElseThrow());
    window.until("it prompts", () -> shell.terminal().screenText().contains("$"));
    shell.terminal().type("ls\r".getBytes(StandardCharsets.UTF_8));
    window.until("it ran", () -> shell.terminal().screenText().contains("water.css"));
    Window.inWindow(
        () -> {
          desk.close(shell);
          return null;
        });
  }

  private static void sendUp(Window window, DeskModel desk) throws Exception {
    window.until(
        "this computer's folder is read",
        () -> desk.local().rows().stream().anyMatch(row -> row.name().equals("sent.txt")));
    Window.inWindow(
        () -> {
          desk.transfers().rules().change(TransferRules.of(ConflictRule.REPLACE));
          desk.local()
              .select(
                  desk.local().rows().stream()
                      .filter(row -> row.name().equals("sent.txt"))
                      .toList());
          desk.transfers().sendUp();
          return null;
        });
    window.until("it is sent", () -> desk.transfers().current().isOver());
  }

  private static void closeDesk(Window window) throws Exception {
    Window.inWindow(
        () -> {
          window.model.close(window.desk());
          return null;
        });
    window.until("it is closed", () -> window.model.desks().isEmpty());
  }

  /** How many there are of each class counted, once what nobody holds was collected. */
  private static Map<String, Long> histogram() {
    try {
      String text =
          (String)
              ManagementFactory.getPlatformMBeanServer()
                  .invoke(
                      new ObjectName("com.sun.management:type=DiagnosticCommand"),
                      "gcClassHistogram",
                      new Object[] {new String[0]},
                      new String[] {String[].class.getName()});
      Map<String, Long> counts = new TreeMap<>();
      Matcher lines = HISTOGRAM.matcher(text);
      while (lines.find()) {
        if (COUNTED.contains(lines.group(2))) {
          counts.put(lines.group(2), Long.parseLong(lines.group(1)));
        }
      }
      return counts;
    } catch (javax.management.JMException e) {
      throw new IllegalStateException(e);
    }
  }

  private static long threads() {
    return ManagementFactory.getThreadMXBean().getThreadCount();
  }

  private static long descriptors() throws Exception {
    try (Stream<Path> all = Files.list(Path.of("/proc/self/fd"))) {
      return all.count();
    }
  }

  private long files() throws Exception {
    try (Stream<Path> all = Files.walk(folder)) {
      return all.count();
    }
  }
}
