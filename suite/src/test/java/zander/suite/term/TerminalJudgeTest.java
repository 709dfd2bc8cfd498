package zander.suite.term;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.Timeout.ThreadMode;
import org.junit.jupiter.api.io.TempDir;
import zander.core.term.Terminal;
import zander.core.term.screen.Scrollback;

/**
 * Our terminal's screen beside that of another. Where tmux 3.3 is known to differ from the
 * standards, {@link StreamMaker} says so and goes round it.
 *
 * <p>Judged: text, colours, attributes and cursor of the terminal's screen, cell by cell | {@code
 * tmux} | 3,000 generated streams ({@code stream.cases})
 */
class TerminalJudgeTest {
  private static final int STREAMS = Integer.getInteger("stream.cases", 3_000);

  @TempDir Path folder;

  static Terminal terminal() {
    return new Terminal(
        TmuxJudge.COLUMNS,
        TmuxJudge.ROWS,
        new Scrollback(1_000, 1 << 20),
        new int[259],
        bytes -> {});
  }

  /**
   * Written behind each stream: a capture leaves out the grounds of cells at the end of a row that
   * nothing was written to.
   */
  private static byte[] marks() {
    StringBuilder marks = new StringBuilder("\033[r\033[?6l\033[4l\033[0m\017\033(B");
    for (int y = 1; y <= TmuxJudge.ROWS; y++) {
      marks.append("\033[").append(y).append(";80H|");
    }
    return marks.toString().getBytes(StandardCharsets.US_ASCII);
  }

  /** Shows it to both. */
  static String difference(byte[] stream, TmuxJudge.Shown judge) throws Exception {
    Terminal ours = terminal();
    ours.feed(stream, 0, stream.length);
    String mine = ours.look(screen -> screen.cursorX() + "," + screen.cursorY());
    byte[] marks = marks();
    ours.feed(marks, 0, marks.length);
    TmuxJudge.Seen theirs = judge.show(stream, marks);
    String rows = difference(ours, theirs);
    String other = Math.min(TmuxJudge.COLUMNS - 1, theirs.cursorX()) + "," + theirs.cursorY();
    return mine.equals(other) ? rows : rows + "\ncursor: ours " + mine + ", theirs " + other;
  }

  private static String difference(Terminal ours, TmuxJudge.Seen theirs) {
    return ours.look(
        screen -> {
          for (int y = 0; y < TmuxJudge.ROWS; y++) {
            List<StyledChar> mine = StyledChar.of(screen.row(y));
            if (!mine.equals(theirs.rows().get(y))) {
              return "row " + y + "\n ours   " + mine + "\n theirs " + theirs.rows().get(y);
            }
          }
          return "";
        });
  }

  /** A judge that does not answer must not hold up all tests. */
  @Test
  @Timeout(value = 10, unit = TimeUnit.MINUTES, threadMode = ThreadMode.SEPARATE_THREAD)
  void generatedStreamsLookTheSame() throws Exception {
    List<String> differing = new ArrayList<>();
    try (TmuxJudge.Shown judge = new TmuxJudge.Shown(folder)) {
      for (int seed = 0; seed < STREAMS; seed++) {
        byte[] stream = StreamMaker.make(seed);
        String difference = difference(stream, judge);
        if (!difference.isEmpty()) {
          String shown = new String(stream, StandardCharsets.UTF_8).replace("\033", "\\e");
          differing.add("seed " + seed + ", " + difference + "\n of " + shown);
        }
      }
    }
    assertThat(differing).isEmpty();
  }
}
