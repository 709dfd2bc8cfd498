package zander.bench;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import zander.core.term.Terminal;
import zander.core.term.screen.Scrollback;

/**
 * How long the terminal is held by 8 KiB of one sequence again and again, the part that it takes at
 * once: of those that cost the most for their length, beside 8 KiB of plain text, in one run.
 */
public final class TerminalCalls {
  private static final int PART = 8 * 1024;
  private static final int ROUNDS = 60;
  private static final int WARM = 20;
  private static final String PLAIN = "gauge 7 stands at 142 cm\r\n";

  private static final List<String> COSTLY =
      List.of(
          "x^[9999b",
          "x^[2J",
          "^[9999L",
          "^[9999M",
          "^[9999S",
          "^[9999T",
          "^[9999@",
          "^[9999P",
          "^[9999'}",
          "^[9999'~",
          "^[9999 @",
          "^#8",
          "^[42;$x",
          "^[1;1;99;999;1;2;2$v",
          "^[2*x^[;;;;1$t",
          "^[?5h",
          "^[?1049h^[?1049l",
          "^c",
          "x\n");

  private TerminalCalls() {}

  private static byte[] part(String sequence) {
    String text = sequence.replace('^', '\033');
    return text.repeat(PART / text.length()).getBytes(StandardCharsets.US_ASCII);
  }

  private static double[] milliseconds(String sequence, int columns, int rows) {
    byte[] bytes = part(sequence);
    Terminal terminal =
        new Terminal(columns, rows, new Scrollback(100_000, 40L << 20), new int[259], answer -> {});
    byte[] filled = part(PLAIN);
    List<Long> times = new ArrayList<>();
    for (int i = 0; i < ROUNDS; i++) {
      terminal.feed(filled, 0, filled.length);
      long start = System.nanoTime();
      terminal.feed(bytes, 0, bytes.length);
      if (i >= WARM) {
        times.add(System.nanoTime() - start);
      }
    }
    Collections.sort(times);
    return new double[] {times.get(times.size() / 2) / 1e6, times.get(times.size() - 1) / 1e6};
  }

  private static void measure(String sequence) {
    double[] small = milliseconds(sequence, 80, 24);
    double[] large = milliseconds(sequence, 200, 60);
    System.out.printf(
        Locale.ROOT,
        "%-24s %10.2f %10.2f %10.2f %10.2f%n",
        sequence.replace("\r", "\\r").replace("\n", "\\n"),
        small[0],
        small[1],
        large[0],
        large[1]);
  }

  public static void main(String[] arguments) {
    System.out.println(
        "8 KiB of, in ms            80x24: median, longest   200x60: median, longest");
    measure(PLAIN);
    COSTLY.forEach(TerminalCalls::measure);
  }
}
