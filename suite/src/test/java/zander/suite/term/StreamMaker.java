package zander.suite.term;

import java.nio.charset.StandardCharsets;
import java.util.Random;

/** Makes streams of text and sequences as programs could write them, the same for the same seed. */
final class StreamMaker {
  private static final String[] WORDS = {
    "gauge ", "river", "07:45 ", "levels-web", "-rw-r--r--", "{", "=", "/srv/levels/site ", "x"
  };
  private static final String[] WIDE = {"田", "水位", "한강", "🦦", "⏳", "ｗ", "𠀋"};
  private static final String[] OTHER = {
    "é", "e\u0301", "o\u0308\u0323", "─", "│", "█", "ß", "─┼─"
  };

  private final Random random;
  private final StringBuilder text = new StringBuilder();
  private int top = 1;
  private int bottom = TmuxJudge.ROWS;
  private boolean alternate;
  private boolean saved;

  private StreamMaker(long seed) {
    random = new Random(seed);
  }

  static byte[] make(long seed) {
    StreamMaker maker = new StreamMaker(seed);
    int pieces = 5 + maker.random.nextInt(120);
    for (int i = 0; i < pieces; i++) {
      maker.piece();
    }
    return maker.text.toString().getBytes(StandardCharsets.UTF_8);
  }

  private int upTo(int most) {
    return random.nextInt(most + 1);
  }

  private String one(String... of) {
    return of[random.nextInt(of.length)];
  }

  /**
   * The cursor is sent to a column first: where a wrap is due, tmux holds that it stands behind the
   * last column, and VT420 that it stands in it.
   */
  private StringBuilder unwrapped() {
    return text.append("\033[").append(column()).append('G');
  }

  /**
   * Wide characters begin in odd columns, counted from 1, and whatever is written over them begins
   * there: what is left of one whose right half is overwritten, tmux 3.3 shows all the same.
   */
  private int column() {
    return 1 + 2 * upTo(30);
  }

  private void pairs(String last) {
    text.append("\033[").append(2 + 2 * upTo(3)).append(last);
  }

  private void sequence(String last) {
    text.append("\033[");
    if (random.nextInt(5) > 0) {
      text.append(upTo(12));
    }
    text.append(last);
  }

  private void piece() {
    // A ground is set for one piece: where a wrap scrolls, tmux holds that new rows have none.
    boolean ground = random.nextInt(3) == 0;
    int kind = random.nextInt(26);
    if (ground && kind >= 15 && kind <= 17) {
      text.append("\033[").append(ground()).append('m');
      piece(kind);
      text.append("\033[49m");
    } else {
      piece(kind);
    }
  }

  private String ground() {
    return one("41", "46", "100", "107", "48;5;" + upTo(255), "48;2;" + upTo(255) + ";9;200");
  }

  private void piece(int kind) {
    switch (kind) {
      case 0, 1, 2, 3 -> {
        for (int i = upTo(6); i >= 0; i--) {
          text.append(one(WORDS));
        }
      }
      case 4 -> unwrapped().append(one(WIDE)).append(one(WIDE));
      case 5 -> text.append(one(OTHER));
      case 6, 7 -> text.append("\r\n");
      case 8 -> unwrapped().append(one("\n", "\r", "\b\b", "\t", "\033D", "\033M", "\033E"));
      case 9, 10, 11 -> style();
      case 12 -> moveTo(1 + upTo(23), column());
      case 13 -> {
        moveTo(1 + upTo(23), column());
        text.append("\033[").append(ground()).append('m').append(one(WORDS)).append("\033[49m");
      }
      case 14 -> {
        unwrapped();
        if (random.nextBoolean()) {
          pairs(one("C", "D"));
        } else {
          sequence(one("A", "B", "E", "F", "d"));
        }
      }
      case 15 -> unwrapped().append(one("\033[J", "\033[K", "\033[2K", "\033[2J", "\033[C\033[1K"));
      case 16 -> {
        if (random.nextBoolean()) {
          unwrapped();
          pairs(one("@", "P", "X"));
        } else {
          // Rows go in and out between the margins, and from the start of a row.
          text.append("\033[").append(top + upTo(bottom - top)).append(";1H");
          sequence(one("L", "M"));
        }
      }
      case 17 -> sequence(one("S", "T"));
      case 18 -> margins();
      case 19 -> {
        // What was saved last is another matter once the alternate screen has saved its own.
        unwrapped().append(one(saved ? "\0338" : "\0337", saved ? "\033[u" : "\033[s"));
        saved = true;
      }
      case 20 -> unwrapped().append(one("x", "-")).append("\033[").append(1 + upTo(9)).append('b');
      case 23 -> {
        text.append(alternate ? "\033[?6l\033[?1049l" : "\033[?6l\033[?1049h");
        alternate = !alternate;
        saved = false;
      }
      case 21 -> text.append("\033[").append(one("?6h", "?6l", "?7l", "?7h", "?25l", "?25h"));
      case 24 -> {
        // Where more than the rest of a row is inserted, tmux moves it in one piece.
        unwrapped()
            .append("\033[4h")
            .append(one("--", "田", "gauge ", "o\u0308x"))
            .append("\033[4l");
      }
      case 22 ->
          unwrapped().append(one("\033(0lqqk\033(B", "\033)0\016tqu\017", "\033H", "\033[Z"));
      default -> text.append("\033[").append(one("3g", "?5;25h", "12;4l"));
    }
  }

  private void moveTo(int row, int column) {
    text.append("\033[").append(row).append(';').append(column).append('H');
  }

  private void style() {
    text.append("\033[");
    for (int i = upTo(3); i >= 0; i--) {
      text.append(
          switch (random.nextInt(8)) {
            case 0 -> "0";
            case 1, 2 -> one("1", "2", "3", "4", "5", "7", "8", "9", "53", "4:3", "4:2", "21");
            case 3 -> one("22", "23", "24", "25", "27", "28", "29", "55", "39", "49", "59");
            case 4 -> Integer.toString(30 + upTo(7));
            case 5 -> Integer.toString(90 + upTo(7));
            case 6 -> one("38", "58") + ";5;" + upTo(255);
            default -> "38;2;" + upTo(255) + ";" + upTo(255) + ";" + upTo(255);
          });
      text.append(i > 0 ? ";" : "m");
    }
  }

  private void margins() {
    top = 1 + upTo(20);
    bottom = top + 1 + upTo(23 - top);
    if (random.nextBoolean()) {
      top = 1;
      bottom = 24;
    }
    // In origin mode VT420 goes to the margin, and tmux to the corner.
    text.append("\033[?6l\033[").append(top).append(';').append(bottom).append('r');
  }
}
