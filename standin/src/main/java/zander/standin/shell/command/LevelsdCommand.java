package zander.standin.shell.command;

import java.io.IOException;
import java.util.List;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.UsageError;

/**
 * {@code levelsd --check FILE}: the made-up site program's own test of its settings; with {@code
 * --reload} what runs reads them.
 */
public final class LevelsdCommand {
  private LevelsdCommand() {}

  public static int run(Call call) throws IOException {
    List<String> words = call.arguments();
    if (words.size() != 3 || !List.of("--check", "--reload").contains(words.get(1))) {
      throw new UsageError("only --check and --reload FILE are supported on this stand-in");
    }
    int depth = 0;
    int number = 0;
    int locations = 0;
    for (String line : TextCommands.lines(call.readFile(call.path(words.get(2))))) {
      number++;
      String text = line.replaceFirst("#.*", "").strip();
      if (text.isEmpty()) {
        continue;
      }
      if (text.endsWith("{")) {
        depth++;
        locations += text.startsWith("location ") ? 1 : 0;
      } else if (text.equals("}")) {
        depth--;
      } else if (!text.endsWith(";")) {
        return call.complain(
            words.get(2) + ":" + number + ": a ; is missing at the end of the line");
      }
      if (depth < 0) {
        return call.complain(words.get(2) + ":" + number + ": a } too many");
      }
    }
    if (depth > 0) {
      return call.complain(words.get(2) + ":" + number + ": a } is missing");
    }
    call.out().print(words.get(2) + ": " + locations + " locations, settings are good\nok\n");
    return 0;
  }
}
