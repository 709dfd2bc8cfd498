package zander.suite.term;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.term.Terminal;
import zander.core.term.TerminalModes;
import zander.core.term.screen.CellStyle;
import zander.core.term.screen.Row;
import zander.core.term.screen.Scrollback;

/**
 * The menus of {@code vttest}, gone through by a script. What each screen is to look like was
 * looked at by eye once and is kept; {@code -Dvttest.write=true} keeps it anew.
 */
class VtTestTest {
  private static final Path KEPT = Path.of("src/test/resources/zander/suite/term");
  private static final boolean WRITE = Boolean.getBoolean("vttest.write");
  private static final String STEP = "=== ";
  private static final long PATIENCE = 30_000_000_000L;

  /** Only while screens are kept anew: a screen that has not changed for so long is whole. */
  private static final long QUIET = 400_000_000L;

  private static final Pattern ASKS = Pattern.compile("Push <RETURN>|Enter choice number");
  private static final int LONGEST_QUESTION = 20;
  private static final int MOST_STEPS = 60;

  private final List<String> made = new ArrayList<>();
  private volatile OutputStream keys;

  /** How many times it has asked for a key: what is typed before it does is thrown away. */
  private volatile int asked;

  private final Terminal terminal =
      new Terminal(80, 24, new Scrollback(100, 1 << 20), new int[259], this::answer);

  private void answer(byte[] bytes) {
    try {
      keys.write(bytes);
      keys.flush();
    } catch (IOException e) {
      throw new AssertionError(e);
    }
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "1",
        "2",
        "3 8",
        "3 9",
        "3 11",
        "4",
        "6 3",
        "6 4",
        "6 5",
        "6 6",
        "8",
        "11 6 2",
        "11 6 4",
        "11 6 5",
        "11 6 6",
        "11 6 7 2",
        "11 6 7 4",
        "11 1 2 3",
        "11 1 2 4",
        "11 1 6",
        "11 2 2 1",
        "11 2 2 2",
        "11 3 2 7",
        "11 3 2 8",
        "11 3 2 9",
        "11 3 2 10",
        "11 3 2 3 5 7",
        "11 3 2 3 5 8",
        "11 3 2 3 5 9",
        "11 3 2 3 5 10",
        "11 3 3 9",
        "11 3 3 10",
        "11 3 3 11",
        "11 3 3 12",
        "11 3 3 13",
        "11 3 3 2 4 9",
        "11 3 3 2 4 10",
        "11 3 3 2 4 11",
        "11 3 3 2 4 12",
        "11 3 3 2 4 13",
        "11 3 6 7",
        "11 3 6 8",
        "11 3 6 9",
        "11 3 6 10",
        "11 3 6 11",
        "11 3 6 12",
        "11 3 6 1 2 4 7",
        "11 3 6 1 2 4 8",
        "11 3 6 1 2 4 11",
        "11 3 6 1 2 4 12",
        "11 4 2 7",
        "11 4 2 8",
        "11 4 2 9",
        "11 4 2 10",
        "11 4 2 11",
        "11 4 2 12",
        "11 4 2 13",
        "11 4 2 14",
        "11 4 2 2 3 7",
        "11 4 2 2 3 12",
        "11 5 1",
        "11 5 2",
        "11 5 3",
        "11 5 4",
        "11 5 5",
        "11 5 6",
        "11 5 7",
        "11 5 8",
        "11 5 9",
        "11 7 1 2",
        "11 7 1 1 2",
        "11 7 2",
        "11 7 3",
        "11 7 4",
        "11 7 5",
        "11 7 6",
        "11 8 7 3",
        "11 8 7 4",
        "11 8 7 5"
      })
  void looksAsItWasLookedAt(String choices) throws Exception {
    Process process =
        new ProcessBuilder(
                "script", "-qfc", "stty rows 24 cols 80; exec vttest 24x80.80", "/dev/null")
            .redirectErrorStream(true)
            .start();
    keys = process.getOutputStream();
    Thread reading = new Thread(() -> read(process.getInputStream()));
    reading.start();
    try {
      Path file = KEPT.resolve("vttest-" + choices.replace(' ', '-') + ".txt");
      if (WRITE) {
        keep(choices.split(" "));
        Files.createDirectories(KEPT);
        Files.writeString(file, String.join("", made));
      } else {
        compare(Files.readString(file));
      }
    } finally {
      process.descendants().forEach(ProcessHandle::destroyForcibly);
      process.destroyForcibly().waitFor(1, TimeUnit.MINUTES);
      reading.join();
    }
  }

  private void read(InputStream output) {
    byte[] buffer = new byte[8192];
    try {
      String last = "";
      for (int count; (count = output.read(buffer)) >= 0; ) {
        terminal.feed(buffer, 0, count);
        last = last + new String(buffer, 0, count, StandardCharsets.ISO_8859_1);
        Matcher question = ASKS.matcher(last);
        int end = 0;
        while (question.find()) {
          asked++;
          end = question.end();
        }
        last = last.substring(Math.max(end, last.length() - LONGEST_QUESTION));
      }
    } catch (IOException e) {
      // It was ended.
    }
  }

  private void press(String text) {
    answer(text.getBytes(StandardCharsets.US_ASCII));
  }

  /** The screen's text, and below each row that has any the styles of its cells as letters. */
  private String screen() {
    return terminal.look(
        screen -> {
          StringBuilder text = new StringBuilder();
          for (int y = 0; y < screen.rows(); y++) {
            Row row = screen.row(y);
            String size = row.size() == Row.Size.NORMAL ? "" : "  <" + row.size() + ">";
            text.append(row.text().stripTrailing()).append(size).append('\n');
            String styles = styles(row);
            if (!styles.isBlank()) {
              text.append("~ ").append(styles.stripTrailing()).append('\n');
            }
          }
          TerminalModes modes = terminal.modes();
          return text.append(modes.isReverseScreen() ? "reversed\n" : "").toString();
        });
  }

  private static String styles(Row row) {
    StringBuilder styles = new StringBuilder();
    for (int x = 0; x < row.columns(); x++) {
      long style = row.style(x);
      int bits =
          (CellStyle.has(style, CellStyle.BOLD) ? 1 : 0)
              | (CellStyle.underline(style) > 0 ? 2 : 0)
              | (CellStyle.has(style, CellStyle.BLINK) ? 4 : 0)
              | (CellStyle.has(style, CellStyle.REVERSE) ? 8 : 0);
      int ground = CellStyle.value(CellStyle.background(style));
      int ink = CellStyle.value(CellStyle.foreground(style));
      boolean coloured = CellStyle.foreground(style) != 0 || CellStyle.background(style) != 0;
      styles.append(
          coloured
              ? (char) ('A' + (ink + 3 * ground) % 26)
              : bits == 0 ? ' ' : Character.forDigit(bits, 16));
    }
    return styles.toString();
  }

  private void awaitScreen(String wanted, int before) {
    long end = System.nanoTime() + PATIENCE;
    while ((asked == before || !screen().equals(wanted)) && System.nanoTime() < end) {
      Thread.onSpinWait();
    }
    assertThat(screen()).isEqualTo(wanted);
  }

  private void compare(String kept) {
    for (String step : kept.split("(?m)^" + STEP)) {
      if (!step.isEmpty()) {
        int end = step.indexOf('\n');
        int before = asked;
        press(step.substring(0, end).replace("\\n", "\n"));
        awaitScreen(step.substring(end + 1), before);
      }
    }
  }

  private void keep(String[] choices) throws Exception {
    step("");
    for (String choice : choices) {
      step(choice + "\\n");
    }
    for (int i = 0; i < MOST_STEPS && !screen().contains("VT100 test program"); i++) {
      boolean menu = screen().contains("Enter choice number");
      step(menu ? "0\\n" : "\\n");
    }
  }

  private void step(String press) {
    int before = asked;
    press(press.replace("\\n", "\n"));
    long changed = System.nanoTime();
    long version = terminal.version();
    while (asked == before || System.nanoTime() - changed < QUIET) {
      if (terminal.version() != version) {
        version = terminal.version();
        changed = System.nanoTime();
      }
    }
    made.add(STEP + press + "\n" + screen());
  }
}
