package zander.standin.shell.command;

import java.io.IOException;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.TreeMap;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Command;
import zander.standin.shell.process.Options;
import zander.standin.shell.process.UsageError;
import zander.standin.world.Account;
import zander.standin.world.PosixError;
import zander.standin.world.PosixError.Errno;

/** Commands about the login itself: where, who, which shell. */
public final class LoginCommands {
  private LoginCommands() {}

  public static void addTo(Map<String, Command> all) {
    all.put("cd", LoginCommands::cd);
    all.put("pwd", call -> print(call, call.session().folder));
    all.put("exit", LoginCommands::exit);
    all.put("id", LoginCommands::id);
    all.put("whoami", call -> print(call, accountName(call)));
    all.put("groups", call -> print(call, String.join(" ", groupNames(call))));
    all.put("hostname", call -> print(call, call.machine().name()));
    all.put("uname", call -> print(call, "Linux"));
    all.put("date", LoginCommands::date);
    all.put("getent", LoginCommands::getent);
    all.put("umask", LoginCommands::umask);
    all.put("env", LoginCommands::env);
    all.put("export", LoginCommands::export);
    all.put("clear", call -> raw(call, "\033[H\033[2J\033[3J"));
    all.put("true", call -> 0);
    all.put(":", call -> 0);
    all.put("false", call -> 1);
  }

  private static int print(Call call, String line) {
    call.out().print(line + "\n");
    return 0;
  }

  private static int raw(Call call, String text) {
    call.out().print(text);
    return 0;
  }

  private static int cd(Call call) throws IOException {
    List<String> operands = call.options("", "").operands();
    String to = operands.isEmpty() ? call.session().account.home() : call.path(operands.get(0));
    try {
      if (!call.world().stat(call.caller(), to).isFolder()) {
        throw new PosixError(Errno.ENOTDIR);
      }
      if (!call.world().may(call.caller(), to, 1)) {
        throw new PosixError(Errno.EACCES);
      }
      call.session().folder = zander.core.files.RemotePath.ofWire(to).wire();
      return 0;
    } catch (PosixError e) {
      return call.complain(operands.isEmpty() ? to : operands.get(0), e);
    }
  }

  private static int exit(Call call) {
    call.session().exiting = true;
    return call.arguments().size() > 1
        ? Integer.parseInt(call.arguments().get(1))
        : call.session().lastStatus;
  }

  static String accountName(Call call) {
    return call.machine().accounts().userName(call.caller().uid()).orElse("?");
  }

  private static List<String> groupNames(Call call) {
    List<String> names = new ArrayList<>();
    groupIds(call)
        .forEach(gid -> names.add(call.machine().accounts().groupName(gid).orElse("" + gid)));
    return names;
  }

  private static List<Integer> groupIds(Call call) {
    List<Integer> ids = new ArrayList<>(List.of(call.caller().gid()));
    call.caller().groups().stream().sorted().filter(gid -> !ids.contains(gid)).forEach(ids::add);
    return ids;
  }

  private static int id(Call call) {
    Options options = call.options("ugn", "");
    if (!options.operands().isEmpty()) {
      return idOf(call, options);
    }
    if (options.has('u')) {
      return print(call, options.has('n') ? accountName(call) : "" + call.caller().uid());
    }
    if (options.has('g')) {
      return print(call, options.has('n') ? groupNames(call).get(0) : "" + call.caller().gid());
    }
    List<String> groups = new ArrayList<>();
    for (int gid : groupIds(call)) {
      groups.add(gid + "(" + call.machine().accounts().groupName(gid).orElse("?") + ")");
    }
    return print(
        call,
        "uid="
            + call.caller().uid()
            + "("
            + accountName(call)
            + ") gid="
            + groups.get(0)
            + " groups="
            + String.join(",", groups));
  }

  private static int idOf(Call call, Options options) {
    String name = options.operands().get(0);
    Account account = call.machine().accounts().user(name).orElse(null);
    if (account == null) {
      return call.complain("'" + name + "': no such user");
    }
    if (!options.has('u') || options.has('n')) {
      throw new UsageError("for another account only -u is supported on this stand-in");
    }
    return print(call, "" + account.uid());
  }

  private static int date(Call call) {
    if (call.arguments().size() > 1) {
      throw new UsageError("options and formats are not supported on this stand-in");
    }
    return print(
        call,
        DateTimeFormatter.ofPattern("EEE MMM d HH:mm:ss zzz yyyy", Locale.ROOT)
            .format(ZonedDateTime.now(call.machine().clock())));
  }

  private static int getent(Call call) {
    List<String> operands = call.options("", "").operands(1);
    String lines =
        switch (operands.get(0)) {
          case "passwd" -> call.machine().accounts().passwd();
          case "group" -> call.machine().accounts().groupFile();
          default ->
              throw new UsageError(
                  "database " + operands.get(0) + " is not supported on this stand-in", 1);
        };
    if (operands.size() == 1) {
      return raw(call, lines);
    }
    int status = 0;
    for (String key : operands.subList(1, operands.size())) {
      String found = null;
      for (String line : lines.split("\n")) {
        String[] fields = line.split(":");
        if (fields[0].equals(key) || fields[2].equals(key)) {
          found = line;
        }
      }
      status = found == null ? 2 : status;
      raw(call, found == null ? "" : found + "\n");
    }
    return status;
  }

  private static int umask(Call call) {
    if (call.arguments().size() == 1) {
      return print(call, String.format("%04o", call.session().umask));
    }
    String mask = call.arguments().get(1);
    if (!mask.matches("[0-7]{1,4}")) {
      throw new UsageError("only octal masks are supported on this stand-in");
    }
    call.session().umask = Integer.parseInt(mask, 8) & 0777;
    return 0;
  }

  private static int env(Call call) {
    if (call.arguments().size() > 1) {
      throw new UsageError("running a command is not supported on this stand-in");
    }
    new TreeMap<>(call.session().variables)
        .forEach((name, value) -> call.out().print(name + "=" + value + "\n"));
    return 0;
  }

  private static int export(Call call) {
    for (String word : call.arguments().subList(1, call.arguments().size())) {
      int equals = word.indexOf('=');
      if (equals > 0) {
        call.session().variables.put(word.substring(0, equals), word.substring(equals + 1));
      }
    }
    return 0;
  }
}
