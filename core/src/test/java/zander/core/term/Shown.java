package zander.core.term;

import java.io.ByteArrayOutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import zander.core.term.screen.Row;
import zander.core.term.screen.Screen;
import zander.core.term.screen.Scrollback;

/** A terminal of a test, and what is to be seen of it in words. */
final class Shown {
  final Terminal terminal;
  final ByteArrayOutputStream answers = new ByteArrayOutputStream();
  final List<String> told = new ArrayList<>();

  Shown(int columns, int rows) {
    terminal =
        new Terminal(
            columns,
            rows,
            new Scrollback(1_000, 1 << 20),
            new int[259],
            new TerminalListener() {
              @Override
              public void answer(byte[] bytes) {
                answers.writeBytes(bytes);
              }

              @Override
              public void bell() {
                told.add("bell");
              }

              @Override
              public void title(String title) {
                told.add("title " + title);
              }

              @Override
              public void clipboard(String text) {
                told.add("clipboard " + text);
              }

              @Override
              public void folder(String host, String path) {
                told.add("folder " + host + " " + path);
              }
            });
  }

  /** Feeds it, with {@code ^} for ESC. */
  Shown feed(String text) {
    byte[] bytes = text.replace('^', '\033').getBytes(StandardCharsets.UTF_8);
    terminal.feed(bytes, 0, bytes.length);
    return this;
  }

  private String row(Row row) {
    return row.text().stripTrailing();
  }

  /** The rows of the screen, parted by {@code |}, without blank ones at the end. */
  String rows() {
    return terminal.look(
        screen -> {
          StringBuilder text = new StringBuilder();
          for (int y = 0; y < screen.rows(); y++) {
            text.append(row(screen.row(y))).append('|');
          }
          return text.toString().replaceAll("\\|+$", "");
        });
  }

  /** The rows that have left the screen, parted by {@code |}. */
  String history() {
    return terminal.look(
        screen -> {
          StringBuilder text = new StringBuilder();
          for (int i = 0; i < screen.scrollback().count(); i++) {
            text.append(i > 0 ? "|" : "").append(row(screen.scrollback().row(i, 1)));
          }
          return text.toString();
        });
  }

  /** Column and row of the cursor, from 0, with {@code +} where a wrap is due. */
  String cursor() {
    return terminal.look(
        (Screen screen) ->
            screen.cursorX() + "," + screen.cursorY() + (screen.isWrapDue() ? "+" : ""));
  }

  long style(int x, int y) {
    return terminal.look(screen -> screen.row(y).style(x));
  }

  /** What was answered since it was asked for last, with {@code ^} for ESC. */
  String answered() {
    String text = answers.toString(StandardCharsets.UTF_8).replace('\033', '^');
    answers.reset();
    return text;
  }
}
