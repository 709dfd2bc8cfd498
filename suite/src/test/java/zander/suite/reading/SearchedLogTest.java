package zander.suite.reading;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.files.RemotePath;
import zander.core.find.SearchText;
import zander.core.reading.FileLine;
import zander.core.reading.LineNumbers;
import zander.core.reading.LineSearch;
import zander.core.reading.PagedFile;
import zander.core.work.Cancellation;
import zander.suite.SystemSshd;

/**
 * Lines of a log found by the server's tools, by reading, and by the system's {@code grep} and
 * {@code sed} here: the same ones. {@code -Dreading.cases=5000} for more of them.
 *
 * <p>Judged: the next line with a text, in either direction, by the server and by reading | {@code
 * grep -P}, {@code sed} | 60 places × 4 ({@code reading.cases})
 */
@Timeout(300)
class SearchedLogTest {
  private static final int CASES = Integer.getInteger("reading.cases", 60);
  private static final int LINES = 40_000;

  private static final List<String> WANTED =
      List.of(
          "weir-0[13] ",
          "error",
          "ERROR: pump 17",
          "H\u00f6he 2[.]4",
          "^2026-11-28 1[0-4]:00",
          "m$",
          "(level|H\u00f6he) 3[.]0[0-9]",
          "no such text",
          "\\d\\d:59:59");

  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static Connection connection;
  private static Path log;
  private static PagedFile file;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of("zndreader"), List.of());
    connection = sshd.open("zndreader");
    Random random = new Random(19);
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < LINES; i++) {
      text.append(String.format("2026-11-28 %02d:%02d:%02d ", i / 3600 % 24, i / 60 % 60, i % 60));
      switch (random.nextInt(12)) {
        case 0 -> text.append("error: pump ").append(random.nextInt(40));
        case 1 -> text.append("H\u00f6he ").append(random.nextInt(400) / 100.0).append(" m");
        case 2 -> text.append("x".repeat(random.nextInt(200) == 0 ? 30_000 : 30));
        default ->
            text.append("weir-0" + random.nextInt(9) + " level " + random.nextInt(400) / 100.0);
      }
      text.append(random.nextInt(50) == 0 ? "\r\n" : "\n");
    }
    log = folder.resolve("zndreader/it's all.log");
    Files.writeString(log, text);
    file = PagedFile.open(connection.files(), RemotePath.of(log.toString()));
  }

  @AfterAll
  static void stop() throws Exception {
    if (connection != null) {
      connection.close();
    }
    if (sshd != null) {
      sshd.close();
    }
  }

  /** Where the lines begin that fit, as the system's tools say. */
  private static List<Long> judged(String expression) throws Exception {
    // What comes before the line end is no part of the line, as in the file that is shown.
    String script = "LC_ALL=C.UTF-8 grep -abiP -e \"$1\" -- \"$2\" | cut -d: -f1 || true";
    Process process =
        new ProcessBuilder(
                "sh", "-c", script, "sh", expression.replace("$", "\\r?$"), log.toString())
            .redirectErrorStream(true)
            .start();
    String out = new String(process.getInputStream().readAllBytes(), UTF_8);
    process.waitFor();
    return out.lines().map(Long::parseLong).toList();
  }

  private static long from(FileLine line) {
    return line == null ? -1 : line.from();
  }

  @Test
  void theServerTheFileAndTheJudgeFindTheSame() throws Exception {
    Random random = new Random(7);
    int found = 0;
    for (int i = 0; i < CASES; i++) {
      String expression = WANTED.get(i % WANTED.size());
      SearchText wanted = new SearchText(expression, true, false);
      long place = file.lineAt((long) (random.nextDouble() * file.size()));
      List<Long> all = judged(expression);
      long next = all.stream().filter(at -> at >= place).findFirst().orElse(-1L);
      long before = all.stream().filter(at -> at < place).reduce((a, b) -> b).orElse(-1L);
      for (Commands by : List.of(connection, Commands.NONE)) {
        LineSearch search = new LineSearch(file, wanted, line -> true, connection.files(), by);
        assertThat(from(search.from(place, at -> {}, new Cancellation())))
            .as("%s from %d", expression, place)
            .isEqualTo(next);
        assertThat(from(search.before(place, at -> {}, new Cancellation())))
            .as("%s before %d", expression, place)
            .isEqualTo(before);
      }
      found += next >= 0 ? 1 : 0;
    }
    assertThat(found).isGreaterThan(CASES / 2);
  }

  @Test
  void linesHaveTheNumbersThatSedHas() throws Exception {
    for (int number : List.of(1, 2, 777, LINES - 1, LINES)) {
      String judged = SystemSshd.run("sed", "-n", number + "p", log.toString());
      for (Commands by : List.of(connection, Commands.NONE)) {
        LineNumbers numbers = new LineNumbers(file, connection.files(), by);
        long at = numbers.offsetOf(number, read -> {}, new Cancellation());
        assertThat(file.after(at).get(0).text()).isEqualTo(judged.replaceAll("\r?\n", ""));
      }
    }
    assertThat(
            new LineNumbers(file, connection.files(), connection)
                .offsetOf(LINES + 500L, read -> {}, new Cancellation()))
        .isEqualTo(file.size());
  }

  /** What has no {@code grep} that tells bytes is read, and so is a file that was moved away. */
  @Test
  void aFileThatIsNotAtItsPathAnyMoreIsRead() throws IOException {
    Path moved = Files.writeString(folder.resolve("zndreader/moved.log"), "one\ntwo weirs\n");
    PagedFile open = PagedFile.open(connection.files(), RemotePath.of(moved.toString()));
    Files.move(moved, folder.resolve("zndreader/moved.log.1"));
    Files.writeString(moved, "another, without what is looked for, and rather longer\n");
    SearchText wanted = new SearchText("weirs", false, true);
    LineSearch search = new LineSearch(open, wanted, line -> true, connection.files(), connection);
    assertThat(from(search.from(0, at -> {}, new Cancellation()))).isEqualTo(4);
    open.close();
  }
}
