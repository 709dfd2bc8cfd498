package zander.core.term;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.term.screen.CellStyle;

/**
 * What each sequence does, on a screen of ten columns and five rows: {@code ^} is ESC, {@code /} a
 * new line. By ECMA-48 and DEC's VT510 manual; what tmux knows of it is judged elsewhere as well.
 */
class SequencesTest {
  private final Shown shown = new Shown(10, 5);

  private void feed(String text) {
    shown.feed(text.replace("/", "\r\n"));
  }

  @ParameterizedTest
  @CsvSource({
    // input, rows, cursor
    "'ab^[3b', 'abbbb', '5,0'",
    "'ab^[0m^[2b', 'abbb', '4,0'",
    "'ab\r^[2b', 'ab', '0,0'",
    "'x^[Iy^[Zz', 'x       z', '9,0'",
    "'x^[2Iy', 'x        y', '9,0+'",
    "'ab^[scd^[ue', 'abed', '3,0'",
    "'abc\r^[4hXY^[4l', 'XYabc', '2,0'",
    "'^[2;3r^[5;1Ha\nb', '||||ab', '2,4'",
    "'1/2/3/4/5^[2;3r^[3;1H\nx', '1|3|x|4|5', '1,2'",
    "'abc^[1;2H^[1Jx', ' xc', '2,0'",
    "'1/2/3^[3J', '1|2|3', '1,2'",
    "'abc^[2;4r', 'abc', '0,0'",
    "'1/2/3^[1;1H^M^M', '||1|2|3', '0,0'",
    "'1/2/3^[2;2H^[L', '1||2|3', '0,1'",
    "'1/2/3^[1;1H^[2T', '||1|2|3', '0,0'",
    "'a\b\b\bx', 'x', '1,0'",
    "'a\u007fb', 'ab', '2,0'",
    "'^[?12;25lx', 'x', '1,0'",
    "'^[38:2::1:2:3mx^[0m', 'x', '1,0'",
    "'^[?2026$px^[>1qy', 'xy', '2,0'",
    "'^_hidden^\\a\u009ehidden^\\b^Xhidden^\\c', 'abc', '3,0'",
    "'^]0;never ended\nshown', '|shown', '5,1'",
    "'0123456789x', '0123456789|x', '1,1'",
    "'^[?7l0123456789xyz', '012345678z', '9,0'",
    "'abc\r^[44m^[P', 'bc', '0,0'",
    "'^[3@x', 'x', '1,0'",
    "'123456789\u7530', '123456789|\u7530', '2,1'",
    "'\u7530\r^[Cx', ' x', '2,0'",
    "'\u7530\rx', 'x', '1,0'",
    "'\ud842\udfb7x', '\ud842\udfb7x', '3,0'",
    "'\u2764\ufe0fx', '\u2764\ufe0fx', '3,0'",
    "'\ud83d\udc68\u200d\ud83d\udc69x', '\ud83d\udc68\u200d\ud83d\udc69x', '3,0'",
    "'\ud83d\udc4d\ud83c\udffdx', '\ud83d\udc4d\ud83c\udffdx', '3,0'",
    "'\ud83c\udde9\ud83c\uddeax', '\ud83c\udde9\ud83c\uddeax', '3,0'",
    "'e\u0301\u0323x', 'e\u0301\u0323x', '2,0'",
    "'\u202eabc\u200b', 'abc', '3,0'",
    "'ab^[5Gc^[`d', 'db  c', '1,0'",
    "'^[2;3Hx^[ey^[2ez', '|  x|   y||    z', '5,4'",
    "'^[3ax', '   x', '4,0'",
    "'x^[2Ey^[Fz', 'x|z|y', '1,1'",
    "'^H^[3C^H\r\tx', '   x', '4,0'",
    "'^[3gx\ty', 'x        y', '9,0+'",
    "'^[?69h^[3;5s^[1;3Habcd', '  abc|  d', '3,1'",
    "'^[?69h^[3;5s^[1;3Habc^[1;3H^[@', '   ab', '2,0'",
    "'abcdef^[?69h^[3;5s^[1;3H^[''}', 'ab cdf', '2,0'",
    "'abcdef^[?69h^[3;5s^[1;3H^[''~', 'abde f', '2,0'",
    "'abcdef^[1;1H^[ @', 'bcdef', '0,0'",
    "'abcdef^[1;1H^[ A', ' abcdef', '0,0'",
    "'abc^[1;1H^6', ' abc', '0,0'",
    "'^[42;2;2;3;4$x', '| ***| ***', '0,0'",
    "'^#8^[2;2;4;9$z', 'EEEEEEEEEE|E        E|E        E|E        E|EEEEEEEEEE', '0,0'",
    "'ab/cd^[1;1;2;2;1;3;4$v', 'ab|cd|   ab|   cd', '2,1'",
    "'^[1\"qkeep^[0\"qgo^[?2J', 'keep', '6,0'",
    "'^[1\"qkeep^[0\"qgo^[2J', '', '6,0'",
    "'^Vkeep^Wgo^[2J^[H^[K^[9X', 'keep', '0,0'",
    "'^Vkeep^Wgo^[?2J', 'keep', '6,0'",
    "'^Vkeep^W^[6h^[2J', '', '4,0'",
    "'^Vkeep^W^[1\"q^[2J', '', '4,0'",
    "'ab^[3b^[3b', 'abbbb', '5,0'",
    "'^(0lqk^(Bx', '\u250c\u2500\u2510x', '4,0'",
    "'^)0a\u000eq\u000fb', 'a\u2500b', '3,0'",
    "'^*0^Nqq', '\u2500q', '2,0'",
    "'abc^[?45h/\b', 'abc', '0,1'",
    "'0123456789a\b\b', '0123456789|a', '0,1'",
    "'^[?45h0123456789a\b\b', '0123456789|a', '9,0'",
    "'^[?6h^[2;4r^[1;1Hx^[9;1Hy', '|x||y', '1,3'",
    "'^[999999999999Bx', '||||x', '1,4'",
    "'^[?1049hx^[?1049ly', 'y', '1,0'",
    "'^[8;90;90tx', 'x', '1,0'",
    "'^[?3hx', 'x', '1,0'",
    "'^[1;2;3;4;5;6;7;8;9;10;11;12;13;14;15;16;17;18;19;20;21;22;23;24;25;26;27;28;29;30;31;32;33mx',"
        + " 'x', '1,0'",
    "'^[<1;2x^[?>1hy^[ !\"pz', 'yz', '2,0'",
    "'ab^[\u0018cd', 'abcd', '4,0'",
    "'^[2^[1Cx', ' x', '2,0'",
    "'ab^[?1049h^[!p^[?1049lx', 'abx', '3,0'",
  })
  void doesWhatTheManualsSay(String input, String rows, String cursor) {
    feed(input);
    assertThat(shown.rows()).isEqualTo(rows);
    assertThat(shown.cursor()).isEqualTo(cursor);
  }

  @Test
  void stylesAreTheirOwn() {
    feed("^[4ma^[?4mb^[4:3mc^[24;38;5;9md^[38;2;1;2;3me^[48:5:7mf^[0mg^[>4;1mh");
    assertThat(CellStyle.underline(shown.style(1, 0))).as("?4m is none of SGR").isEqualTo(1);
    assertThat(CellStyle.underline(shown.style(2, 0))).isEqualTo(CellStyle.CURLY);
    assertThat(CellStyle.foreground(shown.style(3, 0))).isEqualTo(CellStyle.indexed(9));
    assertThat(CellStyle.foreground(shown.style(4, 0))).isEqualTo(CellStyle.rgb(1, 2, 3));
    assertThat(CellStyle.background(shown.style(5, 0))).isEqualTo(CellStyle.indexed(7));
    assertThat(shown.style(6, 0)).isEqualTo(CellStyle.PLAIN);
    assertThat(shown.style(7, 0)).as(">4;1m is no style").isEqualTo(CellStyle.PLAIN);
  }

  /** The cells of the first three rows that are bold, as x. */
  private String bold() {
    StringBuilder text = new StringBuilder();
    for (int y = 0; y < 3; y++) {
      for (int x = 0; x < 10; x++) {
        text.append(CellStyle.has(shown.style(x, y), CellStyle.BOLD) ? 'x' : '.');
      }
      text.append(y < 2 ? "|" : "");
    }
    return text.toString();
  }

  @ParameterizedTest
  @CsvSource({
    // input, bold cells
    "'^[1;9;3;2;1$r', '........xx|xxxxxxxxxx|xx........'",
    "'^[2*x^[1;3;2;5;1$r', '..xxx.....|..xxx.....|..........'",
    "'^[2*x^[1;3;2;5;1$r^[1;1;1;4;1$t', 'xx..x.....|..xxx.....|..........'",
    "'^[2*x^[1;3;2;5;1$r^[2;1;3;10$r', '..xxx.....|..........|..........'",
    "'^[2*x^[9;9;1;1;1$r^[3;2;1;1;1$r', '..........|..........|..........'",
    "'^[?6h^[2;3r^[1;9;9;2;1$r', '..........|........xx|xx........'",
  })
  void cellsAreRestyledAsTextOrAsARectangle(String input, String bold) {
    feed("^#8" + input);
    assertThat(bold()).isEqualTo(bold);
  }

  @Test
  void whatIsTakenOutComesInWithTheGround() {
    feed("abc\r^[44m^[2P");
    assertThat(CellStyle.background(shown.style(9, 0))).isEqualTo(CellStyle.indexed(4));
    assertThat(shown.style(0, 0)).isEqualTo(CellStyle.PLAIN);
  }

  @Test
  void rowsThatLeaveAtTheTopAreKept() {
    feed("1/2/3/4/5/6^[1;4r^[4;1H/7");
    assertThat(shown.history()).as("also with a margin below").isEqualTo("1|2");
    feed("^[r^[2J");
    assertThat(shown.history()).as("also when all is erased").startsWith("1|2|3|4");
    feed("^[3J");
    assertThat(shown.history()).isEmpty();
    feed("^[?1049h1/2/3/4/5/6/7^[?1049l");
    assertThat(shown.history()).as("a full-screen program keeps nothing").isEmpty();
  }

  @Test
  void aSequenceThatIsCutGoesOn() {
    for (char c : "^[3;4Hx^]2;gauge^\\\u7530".toCharArray()) {
      feed(String.valueOf(c));
    }
    assertThat(shown.rows()).isEqualTo("||   x\u7530");
    assertThat(shown.told).containsExactly("title gauge");
  }
}
