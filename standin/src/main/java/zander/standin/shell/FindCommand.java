package zander.standin.shell;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import zander.standin.world.PosixError;
import zander.standin.world.Stat;

/** {@code find} with primaries that are all to hold: -name, -type, -maxdepth, -user, -size. */
final class FindCommand {
  private interface Test {
    boolean holds(String name, Stat stat);
  }

  private FindCommand() {}

  static int run(Call call) throws IOException {
    List<String> words = call.arguments().subList(1, call.arguments().size());
    List<String> starts = new ArrayList<>();
    int at = 0;
    while (at < words.size() && !words.get(at).startsWith("-")) {
      starts.add(words.get(at++));
    }
    List<Test> tests = new ArrayList<>();
    int depth = Integer.MAX_VALUE;
    String end = "\n";
    while (at < words.size()) {
      String primary = words.get(at++);
      if (primary.equals("-print")) {
        continue;
      }
      if (primary.equals("-print0")) {
        end = "\0";
        continue;
      }
      if (at == words.size()) {
        throw new UsageError("primary " + primary + " is not supported on this stand-in");
      }
      String value = words.get(at++);
      if (primary.equals("-maxdepth")) {
        depth = Integer.parseInt(value);
      } else {
        tests.add(test(call, primary, value));
      }
    }
    int status = 0;
    for (String start : starts.isEmpty() ? List.of(".") : starts) {
      try {
        walk(call, start, tests, depth, end);
      } catch (PosixError e) {
        status = call.complain("'" + start + "'", e);
      }
    }
    return status;
  }

  private static Test test(Call call, String primary, String value) {
    switch (primary) {
      case "-name":
        Pattern pattern = Words.pattern(value);
        return (name, stat) -> pattern.matcher(name).matches();
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
      default:
        throw new UsageError("primary " + primary + " is not supported on this stand-in");
    }
  }

  private static void walk(Call call, String shown, List<Test> tests, int depth, String end)
      throws IOException {
    Stat stat = call.world().lstat(call.caller(), call.path(shown));
    String name = CopyCommands.baseName(shown);
    if (tests.stream().allMatch(test -> test.holds(name, stat))) {
      call.out().print(shown + end);
    }
    if (stat.isFolder() && depth > 0) {
      try {
        for (String child : Trees.children(call, shown)) {
          walk(call, Call.at(shown, child), tests, depth - 1, end);
        }
      } catch (PosixError e) {
        call.complain("'" + shown + "'", e);
      }
    }
  }
}
