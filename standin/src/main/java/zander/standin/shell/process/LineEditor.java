package zander.standin.shell.process;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;

/** Reads lines from a terminal with the usual keys: arrows, history, Ctrl+A E U W K L C D. */
public final class LineEditor {
  private final Terminal terminal;
  private final List<String> history = new ArrayList<>();
  private StringBuilder line;
  private int cursor;
  private int historyAt;
  private String prompt;

  public LineEditor(Terminal terminal) {
    this.terminal = terminal;
  }

  /** The line without its end; {@code null} at the end of the input; empty after Ctrl+C. */
  public String read(String promptText) throws IOException {
    prompt = promptText;
    line = new StringBuilder();
    cursor = 0;
    historyAt = history.size();
    print(prompt);
    while (true) {
      int key = terminal.readKey();
      switch (key) {
        case Terminal.END:
          return null;
        case 4:
          if (line.length() == 0) {
            print("\n");
            return null;
          }
          break;
        case 3:
          print("^C\n");
          return "";
        case '\r', '\n':
          print("\n");
          if (!line.toString().isBlank()) {
            history.add(line.toString());
          }
          return line.toString();
        default:
          edit(key);
      }
    }
  }

  /** A line that is not shown, for a password. */
  public static String readHidden(Terminal terminal) {
    StringBuilder line = new StringBuilder();
    while (true) {
      int key = terminal.readKey();
      if (key == '\r' || key == '\n') {
        return line.toString();
      } else if (key == Terminal.END || key == 3 || key == 4) {
        return null;
      } else if (key == 127 || key == 8) {
        line.setLength(Math.max(0, line.length() - 1));
      } else {
        line.append((char) key);
      }
    }
  }

  private void edit(int key) throws IOException {
    switch (key) {
      case 127, 8 -> {
        if (cursor > 0) {
          line.deleteCharAt(--cursor);
          redraw();
        }
      }
      case 1 -> move(0);
      case 5 -> move(line.length());
      case 2 -> move(cursor - 1);
      case 6 -> move(cursor + 1);
      case 11 -> {
        line.setLength(cursor);
        redraw();
      }
      case 12 -> {
        print("\033[H\033[2J");
        redraw();
      }
      case 21 -> {
        line.delete(0, cursor);
        cursor = 0;
        redraw();
      }
      case 23 -> {
        int start = line.substring(0, cursor).stripTrailing().lastIndexOf(' ') + 1;
        line.delete(start, cursor);
        cursor = start;
        redraw();
      }
      case 27 -> escape();
      default -> {
        if (key >= 32) {
          line.insert(cursor++, (char) key);
          if (cursor == line.length()) {
            print(String.valueOf((char) key));
          } else {
            redraw();
          }
        }
      }
    }
  }

  private void escape() throws IOException {
    int kind = terminal.readKey();
    if (kind != '[' && kind != 'O') {
      return;
    }
    StringBuilder parameters = new StringBuilder();
    int last = terminal.readKey();
    while (last >= '0' && last <= '?') {
      parameters.append((char) last);
      last = terminal.readKey();
    }
    switch (last) {
      case 'A' -> recall(historyAt - 1);
      case 'B' -> recall(historyAt + 1);
      case 'C' -> move(cursor + 1);
      case 'D' -> move(cursor - 1);
      case 'H' -> move(0);
      case 'F' -> move(line.length());
      case '~' -> {
        if (parameters.toString().equals("3") && cursor < line.length()) {
          line.deleteCharAt(cursor);
          redraw();
        }
      }
      default -> {}
    }
  }

  private void recall(int at) throws IOException {
    if (at >= 0 && at <= history.size()) {
      historyAt = at;
      line = new StringBuilder(at == history.size() ? "" : history.get(at));
      cursor = line.length();
      redraw();
    }
  }

  private void move(int to) throws IOException {
    cursor = Math.max(0, Math.min(line.length(), to));
    redraw();
  }

  private void redraw() throws IOException {
    int back = line.length() - cursor;
    print("\r\033[K" + prompt + line + (back > 0 ? "\033[" + back + "D" : ""));
  }

  private void print(String text) throws IOException {
    terminal.out().write(text.getBytes(StandardCharsets.ISO_8859_1));
    terminal.out().flush();
  }
}
