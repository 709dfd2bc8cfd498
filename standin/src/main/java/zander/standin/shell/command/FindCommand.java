package zander.standin.shell.command;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Command;
import zander.standin.shell.process.LongLine;
import zander.standin.shell.process.Trees;
import zander.standin.shell.process.UsageError;
import zander.standin.shell.process.Words;
import zander.standin.world.PosixError;
import zander.standin.world.Stat;

/** {@code find} with primaries that are all to hold, and -print0, -printf or -exec {} +. */
public final class FindCommand {
  private static final int MOST_AT_ONCE = 500;

  private interface Test {
    boolean holds(String name, Stat stat);
  }

  private final Call call;
  private final List<Test> tests = new ArrayList<>();
  private final List<String> found = new ArrayList<>();
  private int least;
  private int depth = Integer.MAX_VALUE;
  private String end = "\n";
  private String format;
  private List<String> command;
  private int status;

  /** Whether the next primary is not to hold. */
  private boolean negated;

  private FindCommand(Call call) {
    this.call = call;
  }

  public static int run(Call call) throws IOException {
    FindCommand find = new FindCommand(call);
    List<String> words = call.arguments().subList(1, call.arguments().size());
    List<String> starts = new ArrayList<>();
    int at = 0;
    while (at < words.size() && !words.get(at).matches("-.*|!")) {
      starts.add(words.get(at++));
    }
    while (at < words.size()) {
      at = find.primary(words, at);
    }
    for (String start : starts.isEmpty() ? List.of(".") : starts) {
      try {
        find.walk(start, 0);
      } catch (PosixError e) {
        find.status = call.complain("'" + start + "'", e);
      }
    }
    find.runCommand();
    return find.status;
  }

  /** Takes one primary and gives where the next begins. */
  private int primary(List<String> words, int index) {
    int at = index;
    String primary = words.get(at++);
    switch (primary) {
      case "!":
        negated = true;
        return at;
      case "-print":
        return at;
      case "-print0":
        end = "\0";
        return at;
      case "-exec":
        int last = at;
        while (last < words.size() && !words.get(last).equals("+")) {
          last++;
        }
        if (last == words.size() || !words.get(last - 1).equals("{}")) {
          throw new UsageError("-exec is supported with {} + only on this stand-in");
        }
        command = words.subList(at, last - 1);
        return last + 1;
      default:
        break;
    }
    if (at == words.size()) {
      throw new UsageError("primary " + primary + " is not supported on this stand-in");
    }
    String value = words.get(at++);
    switch (primary) {
      case "-maxdepth" -> depth = Integer.parseInt(value);
      case "-mindepth" -> least = Integer.parseInt(value);
      case "-printf" -> format = value;
      default -> {
        Test test = test(primary, value);
        tests.add(negated ? (name, stat) -> !test.holds(name, stat) : test);
        negated = false;
      }
    }
    return at;
  }

  private Test test(String primary, String value) {
    switch (primary) {
      case "-name":
        Pattern pattern = Words.pattern(value);
        return (name, stat) -> pattern.matcher(name).matches();
      case "-iname":
        Pattern anyCase =
            Pattern.compile(
                Words.pattern(value).pattern(), Pattern.DOTALL | Pattern.CASE_INSENSITIVE);
        return (name, stat) -> anyCase.matcher(name).matches();
      case "-type":
        return (name, stat) ->
            switch (value) {
              case "f" -> stat.isFile();
              case "d" -> stat.isFolder();
              case "l" -> stat.isLink();
              default ->
                  throw new UsageError("type " + value + " is not supported on this stand-in");
            };
      case "-user":
        return (name, stat) -> LongLine.owner(stat, call.machine().accounts()).equals(value);
      case "-group":
        return (name, stat) -> LongLine.group(stat, call.machine().accounts()).equals(value);
      case "-perm":
        if (!value.matches("-?[0-7]{1,4}")) {
          throw new UsageError("only octal -perm is supported on this stand-in");
        }
        int bits = Integer.parseInt(value.replace("-", ""), 8);
        return (name, stat) ->
            value.startsWith("-") ? (stat.mode() & bits) == bits : stat.mode() == bits;
      case "-size":
        if (!value.matches("[+-]?[0-9]+c")) {
          throw new UsageError("only -size in bytes is supported on this stand-in");
        }
        return (name, stat) -> compares(stat.size(), value.substring(0, value.length() - 1));
      case "-mmin":
        long now = call.machine().clock().instant().getEpochSecond();
        return (name, stat) -> compares((now - stat.modified() + 59) / 60, value);
      default:
        throw new UsageError("primary " + primary + " is not supported on this stand-in");
    }
  }

  /** {@code +5} for more, {@code -5} for less, {@code 5} for just so much. */
  private static boolean compares(long number, String wanted) {
    long limit = Long.parseLong(wanted.replaceFirst("^[+-]", ""));
    return wanted.startsWith("+")
        ? number > limit
        : wanted.startsWith("-") ? number < limit : number == limit;
  }

  private void walk(String shown, int level) throws IOException {
    Stat stat = call.world().lstat(call.caller(), call.path(shown));
    String name = CopyCommands.baseName(shown);
    if (level >= least && tests.stream().allMatch(test -> test.holds(name, stat))) {
      found(shown, stat);
    }
    if (stat.isFolder() && level < depth) {
      try {
        for (String child : Trees.children(call, shown)) {
          walk(Call.at(shown, child), level + 1);
        }
      } catch (PosixError e) {
        status = call.complain("'" + shown + "'", e);
      }
    }
  }

  private void found(String shown, Stat stat) throws IOException {
    if (command != null) {
      found.add(shown);
      if (found.size() >= MOST_AT_ONCE) {
        runCommand();
      }
    } else if (format != null) {
      String letter = stat.isFolder() ? "d" : stat.isLink() ? "l" : "f";
      call.out()
          .print(
              format
                  .replace("%y", letter)
                  .replace("%s", Long.toString(stat.size()))
                  .replace("%p", shown)
                  .replace("\\n", "\n")
                  .replace("\\0", "\0"));
    } else {
      call.out().print(shown + end);
    }
  }

  private void runCommand() throws IOException {
    if (command == null || found.isEmpty()) {
      return;
    }
    List<String> arguments = new ArrayList<>(command);
    arguments.addAll(found);
    found.clear();
    Command wanted = call.command(arguments.get(0));
    if (wanted == null) {
      status = call.complain("'" + arguments.get(0) + "': No such file or directory");
      return;
    }
    Call run =
        new Call(
            call.session(),
            arguments,
            java.io.InputStream.nullInputStream(),
            call.out(),
            call.errors());
    if (wanted.run(run) != 0) {
      status = 1;
    }
    run.flush();
  }
}
