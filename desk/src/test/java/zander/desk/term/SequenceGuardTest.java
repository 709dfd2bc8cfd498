package zander.desk.term;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.Reader;
import java.io.StringReader;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What a server may write into a terminal. {@code ^} stands for ESC, {@code %} for BEL. */
class SequenceGuardTest {
  private static String through(String written) throws IOException {
    StringWriter out = new StringWriter();
    try (Reader guard = new SequenceGuard(new StringReader(written), () -> 132)) {
      guard.transferTo(out);
    }
    return out.toString();
  }

  private static String shown(String written) throws IOException {
    return through(written.replace('^', '\033').replace('%', '\007'))
        .replace('\033', '^')
        .replace('\007', '%');
  }

  @ParameterizedTest
  @ValueSource(
      strings = {
        "plain ünit \u6c34 text\r\n",
        "^[31mred^[0m ^[38;5;196m ^[38:2::10:20:30m^[?2026h^[?1049h^[>4;2m^[!p",
        "^[2J^[H^[12;40H^[5A^(B^=^7^8^c",
        "^]0;title%^]8;;https://levels.example/^\\link^]8;;^\\",
        "^P$q\"p^\\",
        "\u009b31m\u009d0;title\u009c"
      })
  void whatIsUsualComesThroughAsItIs(String written) throws IOException {
    assertThat(shown(written)).isEqualTo(written);
  }

  @ParameterizedTest
  @CsvSource({
    "^[2147483647L, ^[132L",
    "^[99999999999999999999T, ^[132T",
    "^[2147483647P, ^[132P",
    "^[2147483647X, ^[132X",
    "x^[2147483647b, x^[132b",
    "^[1;99999r, ^[1;132r",
    "^[8;30000;30000tx, x",
    "^[21tx, x",
    "^[123456m, ^[9999m",
    "a^[12^[1Ab, a^[1Ab",
    "a^[12\030b, ab",
    // The emulator would read the numbers around what does not belong there as one.
    "a^[4\ufffd55&5\ufffd22Lb, ab",
    "a^[4?55Lb, ab",
    "a^[99:132:132Tb, ab",
    "a^[9 9 9Lb, ab",
  })
  void whatWouldCostMoreThanTheScreenIsTakenDown(String written, String left) throws IOException {
    assertThat(shown(written)).isEqualTo(left);
  }

  @Test
  void stringsAndSequencesHaveABound() throws IOException {
    String much = "x".repeat(10_000_000);
    assertThat(shown("^]0;" + much)).isEmpty();
    assertThat(shown("a^]0;" + much + "%b")).isEqualTo("ab");
    assertThat(shown("a^[" + "1;".repeat(1_000_000) + "mb")).isEqualTo("ab");
    assertThat(shown("a^]0;unended^[1mb")).isEqualTo("a^[1mb");
  }

  /** However the bytes fall into reads, and whatever they are. */
  @Test
  void anythingMayBeWritten() throws IOException {
    Random random = new Random(41);
    String letters =
        "\033\033\033[]PX^_0123456789;;?>!$#()ABLTPXbtmrhl \007\030\032\\\u009b\u009d\u6c34x\n";
    for (int i = 0; i < 3000; i++) {
      StringBuilder written = new StringBuilder();
      for (int j = random.nextInt(400); j > 0; j--) {
        written.append(letters.charAt(random.nextInt(letters.length())));
      }
      TerminalModel terminal = new TerminalModel(bytes -> {}, (columns, rows) -> {});
      terminal.readAll(
          new ByteArrayInputStream(written.toString().getBytes(StandardCharsets.UTF_8)));
      assertThat(terminal.rows()).as("%s", written).isEqualTo(24);
      assertThat(terminal.columns()).isEqualTo(80);
    }
  }
}
