package zander.desk.term;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.List;
import java.util.Queue;
import org.junit.jupiter.api.Test;
import zander.core.term.TerminalPicture;
import zander.core.term.screen.CellStyle;

class TerminalModelTest {
  private final ByteArrayOutputStream typed = new ByteArrayOutputStream();
  private final TerminalModel terminal = new TerminalModel(typed::writeBytes, (c, r) -> {});

  private void feed(String text) {
    terminal.readAll(new ByteArrayInputStream(text.getBytes(StandardCharsets.UTF_8)));
  }

  @Test
  void showsTextColoursAndTheCursor() {
    long before = terminal.version();
    feed("plain \033[1;31mred ünit\033[0m\r\nnext");
    assertThat(terminal.version()).isGreaterThan(before);
    assertThat(terminal.rowText(0)).isEqualTo("plain red ünit");
    TerminalPicture picture = terminal.picture(TerminalPicture.SCREEN, null);
    long style = picture.rows().get(0).style(6);
    assertThat(CellStyle.foreground(style)).isEqualTo(CellStyle.indexed(1));
    assertThat(picture.cursorRow() - picture.topRow()).isEqualTo(1);
    assertThat(picture.cursorX()).isEqualTo(4);
    feed("\033[?25l");
    assertThat(terminal.modes().isCursorVisible()).isFalse();
  }

  @Test
  void keepsWhatScrolledAwayAndTheScreenBehindAFullScreenProgram() {
    StringBuilder lines = new StringBuilder();
    for (int i = 0; i < 100; i++) {
      lines.append("line ").append(i).append("\r\n");
    }
    feed(lines.toString());
    assertThat(terminal.historyRows()).isEqualTo(77);
    assertThat(terminal.rowText(-77)).isEqualTo("line 0");
    feed("\033[?1049h\033[2J\033[HFULL");
    assertThat(terminal.isFullScreen()).isTrue();
    assertThat(terminal.rowText(0)).isEqualTo("FULL");
    feed("\033[?1049l");
    assertThat(terminal.isFullScreen()).isFalse();
    assertThat(terminal.screenText()).contains("line 99").doesNotContain("FULL");
  }

  @Test
  void tellsItsSizeAndAnswersQuestions() {
    int[] told = new int[2];
    TerminalModel resized =
        new TerminalModel(
            bytes -> {},
            (columns, rows) -> {
              told[0] = columns;
              told[1] = rows;
            });
    resized.resize(132, 50);
    assertThat(told).containsExactly(132, 50);
    feed("\033[6n");
    assertThat(typed.toString(UTF_8)).isEqualTo("\033[1;1R");
  }

  /**
   * While a size is being set, only the last of those that are wanted meanwhile is set after it.
   */
  @Test
  void sizesAreSetElsewhereAndNotOneByOne() {
    Queue<Runnable> due = new ArrayDeque<>();
    List<Integer> told = new ArrayList<>();
    TerminalModel resized =
        new TerminalModel(bytes -> {}, bytes -> {}, (c, r) -> told.add(c), due::add);
    for (int columns = 81; columns <= 132; columns++) {
      resized.resize(columns, 24);
    }
    assertThat(resized.columns()).isEqualTo(132);
    assertThat(resized.picture(TerminalPicture.SCREEN, null).columns()).isEqualTo(80);
    assertThat(due).hasSize(1);
    due.remove().run();
    assertThat(resized.picture(TerminalPicture.SCREEN, null).columns()).isEqualTo(132);
    assertThat(told).containsExactly(132);
  }

  @Test
  void marksAPasteWhenAskedAndNeverLetsItEndItsMark() {
    terminal.paste(PastedText.of("two\nlines"));
    assertThat(typed.toString(UTF_8)).isEqualTo("two\rlines");
    typed.reset();
    feed("\033[?2004h");
    terminal.paste(PastedText.of("rm\033[201~ -rf"));
    assertThat(typed.toString(UTF_8)).isEqualTo("\033[200~rm[201~ -rf\033[201~");
  }

  @Test
  void survivesRubbish() {
    feed("\033[999999999999999999m\033[?\033]0;title\007\033P$q\033\\ still here");
    assertThat(terminal.screenText()).contains("still here");
  }

  @Test
  void copiesMarkedText() {
    feed("see /srv/levels/site now\r\nsecond row");
    TerminalPicture picture = terminal.picture(TerminalPicture.SCREEN, null);
    Selection selection = new Selection();
    selection.selectWord(0, 8, picture.row(0));
    assertThat(selection.text(picture::row)).isEqualTo("/srv/levels/site");
    selection.start(1, 6, false);
    selection.extend(0, 21);
    assertThat(selection.text(picture::row)).isEqualTo("now\nsecond");
    selection.start(0, 0, true);
    selection.extend(1, 3);
    assertThat(selection.text(picture::row)).isEqualTo("see\nsec");
  }
}
