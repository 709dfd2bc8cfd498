package zander.suite.term;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import zander.core.term.Terminal;
import zander.core.term.screen.Scrollback;

/**
 * No output can hurt the terminal: no exception, no memory without a bound. How long a call takes
 * at most is measured in {@code bench} ({@code TerminalCalls}).
 */
class TerminalFuzzTest {
  private static final long BYTES = Long.getLong("fuzz.terminal.bytes", 10_000_000);

  @Test
  void anyBytesAreTakenInLittleMemory() throws Exception {
    String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
    Process process =
        new ProcessBuilder(
                java,
                "-Xmx64m",
                "-cp",
                System.getProperty("java.class.path"),
                TerminalFuzz.class.getName(),
                Long.toString(BYTES),
                "1")
            .redirectErrorStream(true)
            .start();
    String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
    assertThat(process.waitFor()).as(said).isZero();
    assertThat(said).startsWith("taken");
  }

  /** Each of these once froze a terminal, killed it, or drew without an end. */
  @Test
  void shortSequencesWithLargeNumbersCostNoMoreThanTheScreen() {
    Terminal terminal =
        new Terminal(80, 24, new Scrollback(1_000, 1 << 20), new int[259], bytes -> {});
    StringBuilder text = new StringBuilder();
    for (char last : "@ABCDEFGHIJKLMPSTXZ^`abdefghijklmnpqrstux".toCharArray()) {
      for (String number : new String[] {"2147483647", "99999999999999999999", "65535"}) {
        text.append("\033[").append(number).append(last);
        text.append("\033[").append(number).append(';').append(number).append(last);
        text.append("\033[").append("1;".repeat(5_000)).append(last);
      }
    }
    byte[] bytes = text.append("\033cwhole").toString().getBytes(StandardCharsets.US_ASCII);
    for (int i = 0; i < 100; i++) {
      terminal.feed(bytes, 0, bytes.length);
    }
    assertThat(terminal.<String>look(screen -> screen.row(0).text())).isEqualTo("whole");
    assertThat(terminal.<Integer>look(screen -> screen.columns())).isEqualTo(80);
  }
}
