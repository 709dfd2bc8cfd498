package zander.standin.shell.command;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.LongLine;
import zander.standin.shell.process.Options;
import zander.standin.shell.process.UsageError;
import zander.standin.world.PosixError;
import zander.standin.world.Stat;

/** {@code ls}: names in columns of one, long form, hidden ones, sorted by name or time. */
public final class ListCommand {
  private record Row(String name, String path, Stat stat) {}

  private ListCommand() {}

  public static int run(Call call) throws IOException {
    Options options = call.options("1aAlnrtRd", "");
    if (options.has('R') || options.has('n')) {
      throw new UsageError("options -R and -n are not supported on this stand-in");
    }
    List<String> operands = options.operands().isEmpty() ? List.of(".") : options.operands();
    List<Row> files = new ArrayList<>();
    List<String> folders = new ArrayList<>();
    int status = 0;
    for (String operand : operands) {
      try {
        String path = call.path(operand);
        Stat stat =
            options.has('l') || options.has('d')
                ? call.world().lstat(call.caller(), path)
                : call.world().stat(call.caller(), path);
        if (stat.isFolder() && !options.has('d')) {
          folders.add(operand);
        } else {
          files.add(new Row(operand, path, stat));
        }
      } catch (PosixError e) {
        status = Math.max(2, call.complain("cannot access '" + operand + "'", e));
      }
    }
    print(call, options, files);
    for (String folder : folders) {
      if (operands.size() > 1) {
        call.out()
            .print((files.isEmpty() && folder.equals(folders.get(0)) ? "" : "\n") + folder + ":\n");
      }
      try {
        print(call, options, rows(call, options, call.path(folder)));
      } catch (PosixError e) {
        status = Math.max(2, call.complain("cannot open directory '" + folder + "'", e));
      }
    }
    return status;
  }

  private static List<Row> rows(Call call, Options options, String folder) throws IOException {
    List<String> names = new ArrayList<>(call.world().list(call.caller(), folder));
    if (!options.has('a') && !options.has('A')) {
      names.removeIf(name -> name.startsWith("."));
    } else if (options.has('a')) {
      names.addAll(List.of(".", ".."));
    }
    List<Row> rows = new ArrayList<>();
    boolean stats = options.has('l') || options.has('t') || call.terminal() != null;
    for (String name : names) {
      String path = Call.at(folder, name);
      rows.add(new Row(name, path, stats ? call.world().lstat(call.caller(), path) : null));
    }
    return rows;
  }

  private static void print(Call call, Options options, List<Row> rows) throws IOException {
    rows.sort(
        options.has('t')
            ? Comparator.comparingLong((Row row) -> -row.stat.modified()).thenComparing(Row::name)
            : Comparator.comparing(Row::name));
    if (options.has('r')) {
      Collections.reverse(rows);
    }
    for (Row row : rows) {
      String name = coloured(call, row);
      if (!options.has('l')) {
        call.out().print(name + "\n");
        continue;
      }
      String target =
          row.stat.isLink() ? " -> " + call.world().readLink(call.caller(), row.path) : "";
      call.out()
          .print(
              LongLine.of(
                      row.stat, name + target, call.machine().accounts(), call.machine().clock())
                  + "\n");
    }
  }

  /** Colours only where a person looks: on a terminal. */
  private static String coloured(Call call, Row row) {
    if (call.terminal() == null
        || row.stat == null
        || (row.stat.isFile() && (row.stat.mode() & 0111) == 0)) {
      return row.name;
    }
    String colour = row.stat.isFolder() ? "1;34" : row.stat.isLink() ? "36" : "32";
    return "\033[" + colour + "m" + row.name + "\033[0m";
  }
}
