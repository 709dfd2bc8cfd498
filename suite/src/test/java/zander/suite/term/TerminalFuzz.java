package zander.suite.term;

import java.util.Random;
import zander.core.term.Terminal;
import zander.core.term.TerminalPicture;
import zander.core.term.screen.Scrollback;

/** Gives a terminal bytes that nobody meant, in a program of its own with little memory. */
final class TerminalFuzz {
  private static final int PART = 4096;
  private static final int KINDS = 4;
  private static final String SHORT =
      "\033[]PX^_;:?>=<!$\"' 0123456789hlmrHJKLMPSTXZ@bcdnqtux\007\\";

  private final Random random;

  private TerminalFuzz(long seed) {
    random = new Random(seed);
  }

  /**
   * Says how much it took; fails on any exception.
   *
   * @param arguments how many bytes, and a seed
   */
  public static void main(String[] arguments) {
    TerminalFuzz fuzz = new TerminalFuzz(Long.parseLong(arguments[1]));
    fuzz.run(Long.parseLong(arguments[0]));
    System.out.println("taken " + arguments[0]);
  }

  private void run(long bytes) {
    Terminal terminal = terminal();
    TerminalPicture picture = null;
    for (long given = 0; given < bytes; given += PART) {
      byte[] part = part();
      terminal.feed(part, 0, part.length);
      if (random.nextInt(20) == 0) {
        terminal.resize(1 + random.nextInt(200), 1 + random.nextInt(80));
      }
      picture = terminal.picture(random.nextLong(), picture);
      picture.rows().forEach(row -> row.text(0, row.columns()));
      if (random.nextInt(500) == 0) {
        terminal = terminal();
      }
    }
  }

  private Terminal terminal() {
    return new Terminal(80, 24, new Scrollback(10_000, 8 << 20), new int[259], bytes -> {});
  }

  /**
   * Bytes of any value, bytes that sequences are made of, streams of programs, and those damaged.
   */
  private byte[] part() {
    int kind = random.nextInt(KINDS);
    if (kind >= 2) {
      byte[] stream = StreamMaker.make(random.nextLong());
      for (int i = 0; kind == 3 && i < stream.length / 8; i++) {
        stream[random.nextInt(stream.length)] = (byte) random.nextInt(256);
      }
      return stream;
    }
    byte[] part = new byte[PART];
    random.nextBytes(part);
    for (int i = 0; kind == 1 && i < PART; i++) {
      part[i] = (byte) SHORT.charAt((part[i] & 0xff) % SHORT.length());
    }
    return part;
  }
}
