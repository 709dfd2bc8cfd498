package zander.standin.shell.command;

import java.util.List;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.UsageError;
import zander.standin.world.PosixError;
import zander.standin.world.Stat;

/** {@code test}: what kind a file is, and whether it may be run (POSIX XCU, test). */
public final class TestCommand {
  private TestCommand() {}

  public static int run(Call call) {
    List<String> words = call.arguments();
    boolean bracket = words.get(0).equals("[");
    if (words.size() == (bracket ? 5 : 4)) {
      return compare(words.get(1), words.get(2), words.get(3)) ? 0 : 1;
    }
    if (words.size() != (bracket ? 4 : 3) || (bracket && !words.get(3).equals("]"))) {
      throw new UsageError("only one file is looked at on this stand-in");
    }
    if (words.get(1).equals("-x") && call.command(words.get(2)) != null) {
      // The programs of a made-up machine are in no folder of it.
      return 0;
    }
    try {
      Stat stat = call.world().stat(call.caller(), call.path(words.get(2)));
      boolean is =
          switch (words.get(1)) {
            case "-e" -> true;
            case "-d" -> stat.isFolder();
            case "-f" -> !stat.isFolder();
            case "-x" -> (stat.mode() & 0111) != 0;
            case "-r" -> call.world().may(call.caller(), call.path(words.get(2)), 4);
            case "-w" -> call.world().may(call.caller(), call.path(words.get(2)), 2);
            default -> throw new UsageError(words.get(1) + " is not supported on this stand-in");
          };
      return is ? 0 : 1;
    } catch (PosixError e) {
      return 1;
    }
  }

  private static boolean compare(String one, String how, String other) {
    if (how.equals("=") || how.equals("!=")) {
      return one.equals(other) == how.equals("=");
    }
    int order;
    try {
      order = Long.compare(Long.parseLong(one), Long.parseLong(other));
    } catch (NumberFormatException e) {
      throw new UsageError("integer expression expected");
    }
    return switch (how) {
      case "-eq" -> order == 0;
      case "-ne" -> order != 0;
      case "-lt" -> order < 0;
      case "-le" -> order <= 0;
      case "-gt" -> order > 0;
      case "-ge" -> order >= 0;
      default -> throw new UsageError(how + " is not supported on this stand-in");
    };
  }
}
