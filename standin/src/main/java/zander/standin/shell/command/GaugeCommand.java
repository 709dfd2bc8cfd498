package zander.standin.shell.command;

import java.io.IOException;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Terminal;
import zander.standin.shell.process.UsageError;

/**
 * {@code gauge}: a full-screen program of the Riverwatch demo. Shows made-up river levels as bars,
 * follows the size of the terminal, up and down choose a station, {@code q} ends it.
 */
public final class GaugeCommand {
  private static final String[] STATIONS = {
    "Alder Ford",
    "Brack Weir",
    "Cold Lode",
    "Dunmere",
    "Eel Bridge",
    "Fenny Lock",
    "Grebe Mill",
    "Hollow Beck",
    "Ives Staithe",
    "Jackdaw Sluice",
    "Kelder Foot",
    "Long Reach"
  };
  private static final int[] LEVELS = {62, 48, 91, 35, 77, 54, 83, 29, 66, 97, 41, 58};

  private final Terminal terminal;
  private final Call call;
  private int chosen;

  private GaugeCommand(Call call) {
    this.call = call;
    this.terminal = call.terminal();
  }

  public static int run(Call call) throws IOException {
    if (call.terminal() == null) {
      throw new UsageError("needs a terminal", 1);
    }
    return new GaugeCommand(call).show();
  }

  private int show() throws IOException {
    terminal.setRaw(true);
    try {
      print("\033[?1049h\033[?25l");
      int columns = 0;
      int rows = 0;
      while (true) {
        if (columns != terminal.columns() || rows != terminal.rows()) {
          columns = terminal.columns();
          rows = terminal.rows();
          print("\033[2J");
        }
        draw(columns, rows);
        int key = terminal.pollKey(150);
        if (key == 'q' || key == 3 || key == Terminal.END) {
          return 0;
        }
        if (key == 27 && (terminal.pollKey(50) | 0x20) == ('[' | 0x20)) {
          int last = terminal.pollKey(50);
          chosen =
              Math.floorMod(chosen + (last == 'A' ? -1 : last == 'B' ? 1 : 0), STATIONS.length);
        }
      }
    } finally {
      print("\033[?25h\033[?1049l");
      terminal.setRaw(false);
    }
  }

  private void draw(int columns, int rows) throws IOException {
    StringBuilder screen = new StringBuilder("\033[H");
    String title = " Riverwatch gauge   " + call.machine().name() + "   " + columns + " x " + rows;
    screen.append("\033[48;2;44;106;90m\033[1;97m").append(fit(title, columns)).append("\033[0m");
    int width = Math.max(4, columns - 34);
    for (int i = 0; i < STATIONS.length && i < rows - 3; i++) {
      int filled = LEVELS[i] * width / 100;
      String colour = LEVELS[i] > 90 ? "167" : LEVELS[i] > 75 ? "179" : "66";
      screen.append(String.format("\033[%d;1H", i + 3));
      screen
          .append(i == chosen ? "\033[7m" : "")
          .append(fit(" " + STATIONS[i], 18))
          .append("\033[0m ");
      screen.append("\033[48;5;").append(colour).append('m').append(" ".repeat(filled));
      screen.append("\033[48;5;238m").append(" ".repeat(width - filled)).append("\033[0m");
      screen.append(fit(String.format(" %4.2f m", LEVELS[i] / 25.0), 10));
    }
    screen.append(String.format("\033[%d;1H\033[2m", rows));
    screen
        .append(fit(" up, down: choose a station   q: back to the shell", columns - 1))
        .append("\033[0m");
    print(screen.toString());
  }

  private static String fit(String text, int width) {
    return text.length() >= width
        ? text.substring(0, Math.max(0, width))
        : text + " ".repeat(width - text.length());
  }

  private void print(String text) throws IOException {
    call.out().print(text);
    call.out().flush();
  }
}
