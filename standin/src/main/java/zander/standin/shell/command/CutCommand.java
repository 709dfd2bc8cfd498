package zander.standin.shell.command;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Options;
import zander.standin.shell.process.UsageError;

/** {@code cut}: letters with {@code -c}, or fields with {@code -f} and {@code -d} (POSIX XCU). */
public final class CutCommand {
  private CutCommand() {}

  public static int run(Call call) throws IOException {
    Options options = call.options("s", "cdf");
    boolean letters = options.has('c');
    String list = options.value(letters ? 'c' : 'f');
    if (list == null || (letters && options.has('f'))) {
      throw new UsageError("you must specify a list of bytes, characters, or fields", 1);
    }
    String between = options.has('d') ? options.value('d') : "\t";
    return FileCommands.each(
        call,
        TextCommands.orInput(options.operands()),
        "cannot read",
        operand -> {
          for (String line : TextCommands.lines(TextCommands.content(call, operand))) {
            String text = line.endsWith("\n") ? line.substring(0, line.length() - 1) : line;
            if (letters) {
              call.out().print(chosen(List.of(text.split("")), list, "") + "\n");
            } else if (text.contains(between)) {
              List<String> fields = List.of(text.split(java.util.regex.Pattern.quote(between), -1));
              call.out().print(chosen(fields, list, between) + "\n");
            } else if (!options.has('s')) {
              call.out().print(text + "\n");
            }
          }
        });
  }

  private static String chosen(List<String> parts, String list, String between) {
    List<String> chosen = new ArrayList<>();
    for (int i = 1; i <= parts.size(); i++) {
      for (String range : list.split(",")) {
        if (isIn(i, range)) {
          chosen.add(parts.get(i - 1));
          break;
        }
      }
    }
    return String.join(between, chosen);
  }

  private static boolean isIn(int number, String range) {
    if (!range.matches("[0-9]+|[0-9]+-|-[0-9]+|[0-9]+-[0-9]+")) {
      throw new UsageError("invalid list: " + range, 1);
    }
    int dash = range.indexOf('-');
    if (dash < 0) {
      return number == Integer.parseInt(range);
    }
    int from = dash == 0 ? 1 : Integer.parseInt(range.substring(0, dash));
    String last = range.substring(dash + 1);
    return number >= from && (last.isEmpty() || number <= Integer.parseInt(last));
  }
}
