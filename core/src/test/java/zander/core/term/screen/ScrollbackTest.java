package zander.core.term.screen;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Random;
import org.junit.jupiter.api.Test;

/**
 * Rows are packed without loss, let go of at their bound, and wrapped anew when the width changes.
 */
class ScrollbackTest {
  private static final String[] PIECES = {
    "gauge ", "x", "7", "\u7530", "\ud83e\udda6", "e\u0301", "\u2764\ufe0f", " ", "\u00e9"
  };

  private static void print(Screen screen, String text) {
    text.codePoints()
        .forEach(
            c -> {
              if (c == '\n') {
                screen.moves().index();
                screen.moves().carriageReturn();
              } else if (c < 0x7f) {
                screen.text().print(new byte[] {(byte) c}, 0, 1);
              } else {
                screen.text().print(c);
              }
            });
  }

  private static String all(Screen screen) {
    StringBuilder text = new StringBuilder();
    for (long n = screen.firstRow(); n < screen.topRow() + screen.rows(); n++) {
      Row row = screen.rowOf(n);
      String part = row.text();
      text.append(part).append(row.isWrapped() ? "" : "\n");
    }
    return text.toString().stripTrailing();
  }

  private static boolean same(Row one, Row other) {
    for (int x = 0; x < one.columns(); x++) {
      boolean cell =
          one.code(x) == other.code(x)
              && one.text(x).equals(other.text(x))
              && one.style(x) == other.style(x)
              && java.util.Objects.equals(one.decoration(x), other.decoration(x));
      if (!cell) {
        return false;
      }
    }
    return one.isWrapped() == other.isWrapped() && one.size() == other.size();
  }

  @Test
  void rowsComeBackAsTheyWere() {
    Random random = new Random(7);
    PackedRow packer = PackedRow.writer();
    for (int i = 0; i < 2_000; i++) {
      Screen screen = new Screen(2 + random.nextInt(40), 1, new Scrollback(1, 1 << 16));
      for (int j = random.nextInt(20); j >= 0; j--) {
        long style = CellStyle.withForeground(random.nextLong(), CellStyle.indexed(j));
        screen.style(random.nextBoolean() ? CellStyle.PLAIN : style);
        screen.decoration(
            random.nextInt(4) > 0 ? null : new Decoration(CellStyle.rgb(1, 2, j), "https://x", ""));
        print(screen, PIECES[random.nextInt(PIECES.length)]);
        screen.moves().column(random.nextInt(screen.columns()));
      }
      Row row = screen.row(0);
      Row back = PackedRow.unpack(packer.pack(row), row.columns());
      assertThat(same(row, back)).as(row.text()).isTrue();
    }
  }

  @Test
  void theOldestGoAtTheBound() {
    Scrollback kept = new Scrollback(100, 4_000);
    Screen screen = new Screen(20, 2, kept);
    for (int i = 0; i < 1_000; i++) {
      print(screen, "row " + i + "\n");
    }
    assertThat(kept.count()).isLessThanOrEqualTo(100);
    assertThat(kept.bytes()).isLessThanOrEqualTo(4_000);
    assertThat(kept.gone() + kept.count()).isEqualTo(999);
    assertThat(kept.row(kept.count() - 1, 20).text()).isEqualTo("row 998");
    assertThat(screen.rowOf(kept.gone()).text()).isEqualTo("row " + kept.gone());
    assertThat(screen.rowOf(kept.gone() - 1)).isNull();
  }

  /** The text is the same whatever the width, and so is what the cursor is on. */
  @Test
  void textIsWrappedAnewAndTheCursorStaysOnItsCharacter() {
    Random random = new Random(3);
    for (int i = 0; i < 500; i++) {
      Screen screen = new Screen(20, 6, new Scrollback(1_000, 1 << 20));
      StringBuilder text = new StringBuilder();
      for (int j = random.nextInt(60); j >= 0; j--) {
        text.append(random.nextInt(8) == 0 ? "\n" : PIECES[random.nextInt(PIECES.length)]);
      }
      text.append("end");
      print(screen, text.toString());
      screen.moves().back(1);
      String before = all(screen);
      for (int j = 0; j < 6; j++) {
        new Reflow(screen).resize(3 + random.nextInt(60), 2 + random.nextInt(20));
        assertThat(all(screen)).as("run " + i).isEqualTo(before);
        Row row = screen.row(screen.cursorY());
        String at = row.text(screen.cursorX());
        assertThat(at).as("run %d, %s", i, text).isIn("d", "n");
      }
    }
  }

  @Test
  void rowsComeBackWhenTheScreenGrows() {
    Screen screen = new Screen(10, 3, new Scrollback(100, 1 << 16));
    print(screen, "1\n2\n3\n4\n5");
    new Reflow(screen).resize(10, 5);
    assertThat(screen.row(0).text()).isEqualTo("1");
    assertThat(screen.cursorY()).isEqualTo(4);
    new Reflow(screen).resize(10, 2);
    assertThat(screen.row(1).text()).isEqualTo("5");
    assertThat(screen.scrollback().count()).isEqualTo(3);
    print(screen, "\n");
    screen.edits().eraseScreen(2, false);
    screen.moves().moveTo(0, 0);
    print(screen, "new");
    new Reflow(screen).resize(10, 2);
    assertThat(screen.row(0).text()).isEqualTo("new");
  }

  @Test
  void theAlternateScreenIsCutAndTheMainOneIsKept() {
    Screen screen = new Screen(10, 3, new Scrollback(100, 1 << 16));
    print(screen, "0123456789abc");
    screen.saveCursor();
    screen.alternate(true, true);
    screen.moves().moveTo(0, 0);
    print(screen, "FULL SCREEN");
    new Reflow(screen).resize(5, 3);
    assertThat(screen.row(0).text(0, 5)).isEqualTo("FULL ");
    screen.alternate(false, false);
    screen.restoreCursor();
    new Reflow(screen).resize(20, 3);
    assertThat(all(screen)).isEqualTo("0123456789abc");
    byte[] more = "d".getBytes(StandardCharsets.US_ASCII);
    screen.text().print(more, 0, 1);
    assertThat(all(screen)).isEqualTo("0123456789abcd");
  }
}
