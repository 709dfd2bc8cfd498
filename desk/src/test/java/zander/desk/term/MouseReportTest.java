package zander.desk.term;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.term.TerminalModes;
import zander.core.term.screen.Row;
import zander.core.term.screen.Screen;
import zander.core.term.screen.Scrollback;
import zander.core.work.Cancellation;
import zander.desk.term.KeyEncoder.Held;
import zander.desk.term.MouseReport.Kind;

/** What programs are told of the mouse, and what in a row can be gone to. */
class MouseReportTest {
  private final TerminalModel terminal = new TerminalModel(bytes -> {}, (columns, rows) -> {});

  private TerminalModes asked(String modes) {
    byte[] bytes = modes.replace('^', '\033').getBytes(StandardCharsets.US_ASCII);
    terminal.terminal().feed(bytes, 0, bytes.length);
    return terminal.modes();
  }

  @ParameterizedTest
  @CsvSource({
    "'', PRESS, 0, ''",
    "'^[?1000h', PRESS, 0, '^[M !!'",
    "'^[?1000h', RELEASE, 0, '^[M#!!'",
    "'^[?1000h', MOVE, 0, ''",
    "'^[?1000h^[?1006h', PRESS, 0, '^[<0;1;1M'",
    "'^[?1000h^[?1006h', RELEASE, 2, '^[<2;1;1m'",
    "'^[?1002h^[?1006h', MOVE, 0, '^[<32;1;1M'",
    "'^[?1002h^[?1006h', MOVE, 3, ''",
    "'^[?1003h^[?1006h', MOVE, 3, '^[<35;1;1M'",
    "'^[?1000h^[?1006h', PRESS, 64, '^[<64;1;1M'",
    "'^[?1003h^[?1016h', MOVE, 3, '^[<35;6;8M'",
    "'^[?9h', PRESS, 1, '^[M!!!'",
    "'^[?9h', RELEASE, 1, ''",
    "'^[?1000h^[?1005h', PRESS, 0, '^[M !!'",
  })
  void isToldInTheFormThatWasAskedFor(String modes, Kind kind, int button, String told) {
    byte[] bytes = new MouseReport(kind, button, 0, 0, 5, 7).bytes(asked(modes), Held.NONE);
    assertThat(new String(bytes, StandardCharsets.ISO_8859_1).replace('\033', '^')).isEqualTo(told);
  }

  @Test
  void modifiersAreToldAndPlacesOutOfReachAreNot() {
    TerminalModes modes = asked("^[?1000h");
    Held held = new Held(false, true, true);
    assertThat(new MouseReport(Kind.PRESS, 0, 300, 0, 0, 0).bytes(modes, held)).isEmpty();
    asked("^[?1006h");
    assertThat(new MouseReport(Kind.PRESS, 0, 300, 0, 0, 0).bytes(modes, held))
        .asString(StandardCharsets.US_ASCII)
        .isEqualTo("\033[<24;301;1M");
  }

  @ParameterizedTest
  @CsvSource({
    "'see /srv/levels/a.conf:12: bad', 8, FILE /srv/levels/a.conf 12",
    "'at main.c:7', 4, FILE main.c 7",
    "'open ~/.ssh/config now', 7, FILE ~/.ssh/config 0",
    "'the word alone', 5, ''",
    "'(https://riverwatch.example/a?b=c).', 5, ADDRESS https://riverwatch.example/a?b=c 0",
    "'\u7530\u7530 ../x/y', 6, FILE ../x/y 0",
    "'gauges.py is here', 2, FILE gauges.py 0",
    "'12:30 o''clock', 1, ''",
  })
  void whatCanBeGoneToIsKnown(String text, int column, String expected) {
    Screen screen = new Screen(60, 1, new Scrollback(1, 1 << 16));
    text.codePoints().forEach(screen.text()::print);
    Row row = screen.row(0);
    TextLink link = TextLink.at(row, column);
    String found = link == null ? "" : link.kind() + " " + link.target() + " " + link.line();
    assertThat(found).isEqualTo(expected);
  }

  @Test
  void placesAreFoundFromTheNewestUp() {
    StringBuilder lines = new StringBuilder();
    for (int i = 0; i < 60; i++) {
      lines.append(i % 20 == 0 ? "\u7530 Heron and \u0130 heron\r\n" : "nothing\r\n");
    }
    byte[] bytes = lines.toString().getBytes(StandardCharsets.UTF_8);
    terminal.terminal().feed(bytes, 0, bytes.length);
    Found found = new Found(terminal);
    List<String> places = new ArrayList<>();
    found
        .look("heron", new Cancellation())
        .forEach(place -> places.add(place.row() + ":" + place.from() + "-" + place.to()));
    assertThat(places)
        .containsExactly("40:15-20", "40:3-8", "20:15-20", "20:3-8", "0:15-20", "0:3-8");
    assertThat(found.look("", new Cancellation())).isEmpty();
  }
}
