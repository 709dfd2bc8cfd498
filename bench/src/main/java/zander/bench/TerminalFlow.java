package zander.bench;

import java.nio.charset.StandardCharsets;
import java.util.Random;
import zander.core.term.Terminal;
import zander.core.term.screen.Scrollback;

/**
 * How fast the terminal's core takes what programs write, beside a plain loop that only counts line
 * feeds and escapes in the same bytes, in one run; and what 100,000 rows of scrollback take.
 */
public final class TerminalFlow {
  private static final int MEGABYTES = 100;
  private static final int PART = 4_000_000;
  private static final int ROUNDS = 5;
  private static final int COLUMNS = 120;
  private static final int ROWS = 40;
  private static final int HISTORY = 100_000;

  /** So that the plain loop is not left out. */
  private static long counted;

  private TerminalFlow() {}

  private interface Line {
    void add(StringBuilder text, Random random);
  }

  private static byte[] made(Line line) {
    StringBuilder text = new StringBuilder();
    Random random = new Random(1);
    while (text.length() < PART) {
      line.add(text, random);
      text.append("\r\n");
    }
    return text.toString().getBytes(StandardCharsets.UTF_8);
  }

  private static void letters(StringBuilder text, Random random, int count) {
    for (int i = 0; i < count; i++) {
      text.append((char) (random.nextInt(9) == 0 ? ' ' : 'a' + random.nextInt(26)));
    }
  }

  private static void listing(StringBuilder text, Random random) {
    text.append("-rw-r--r-- 1 web web ").append(random.nextInt(99_999)).append(" Nov 29 07:45 ");
    text.append("\033[0m\033[01;3").append(random.nextInt(8)).append("mgauge-");
    text.append(random.nextInt(9_999)).append(".html\033[0m");
  }

  private static long plain(byte[] bytes, int times) {
    long start = System.nanoTime();
    for (int i = 0; i < times; i++) {
      int lines = 0;
      int escapes = 0;
      for (byte one : bytes) {
        if (one == '\n') {
          lines++;
        } else if (one == 27) {
          escapes++;
        }
      }
      counted += lines + escapes;
    }
    return System.nanoTime() - start;
  }

  private static Terminal terminal() {
    Scrollback kept = new Scrollback(HISTORY, 40L << 20);
    return new Terminal(COLUMNS, ROWS, kept, new int[259], answer -> {});
  }

  private static long terminal(byte[] bytes, int times) {
    Terminal terminal = terminal();
    long start = System.nanoTime();
    for (int i = 0; i < times; i++) {
      terminal.feed(bytes, 0, bytes.length);
    }
    return System.nanoTime() - start;
  }

  private static void measure(String what, byte[] bytes) {
    int times = Math.max(1, MEGABYTES * 1_000_000 / bytes.length);
    long loop = Long.MAX_VALUE;
    long core = Long.MAX_VALUE;
    for (int i = 0; i < ROUNDS; i++) {
      loop = Math.min(loop, plain(bytes, times));
      core = Math.min(core, terminal(bytes, times));
    }
    double size = (double) bytes.length * times / 1e6;
    System.out.printf(
        "%-20s %12.0f %12.0f %10.1f%n",
        what, size / (loop / 1e9), size / (core / 1e9), (double) core / loop);
  }

  private static long used() {
    System.gc();
    return Runtime.getRuntime().totalMemory() - Runtime.getRuntime().freeMemory();
  }

  public static void main(String[] arguments) {
    System.out.printf("%-20s %12s %12s %10s%n", "100 MB of", "loop, MB/s", "core, MB/s", "times");
    measure("plain text", made((text, random) -> letters(text, random, 20 + random.nextInt(80))));
    measure("coloured listing", made(TerminalFlow::listing));
    measure("long lines", made((text, random) -> letters(text, random, 5_000)));
    measure(
        "Han characters",
        made((text, random) -> random.ints(30, 0x4e00, 0x9000).forEach(text::appendCodePoint)));
    byte[] rows = made((text, random) -> letters(text, random, 80));
    Terminal full = terminal();
    long before = used();
    while (full.<Integer>look(screen -> screen.scrollback().count()) < HISTORY) {
      full.feed(rows, 0, rows.length);
    }
    System.out.printf(
        "%,d rows of 80 letters take %.1f MB (counted %d)%n",
        full.<Integer>look(screen -> screen.scrollback().count()),
        (used() - before) / 1e6,
        counted % 10);
  }
}
