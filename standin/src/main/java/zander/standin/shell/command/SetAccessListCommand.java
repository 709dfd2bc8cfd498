package zander.standin.shell.command;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.UsageError;
import zander.standin.world.AccessList;
import zander.standin.world.Account;
import zander.standin.world.PosixError;
import zander.standin.world.Stat;

/** {@code setfacl -m} and {@code -x}, and {@code --set-file=-}; see its manual page. */
public final class SetAccessListCommand {
  private static final int RUN = 0111;

  private SetAccessListCommand() {}

  public static int run(Call call) throws IOException {
    List<String> words = new ArrayList<>(call.arguments().subList(1, call.arguments().size()));
    // There are no lists for new entries here, so none to be taken away.
    words.remove("-k");
    boolean whole = !words.isEmpty() && words.get(0).equals("--set-file=-");
    boolean removes = !words.isEmpty() && words.get(0).equals("-x");
    if (!whole && (words.size() < 2 || !(removes || words.get(0).equals("-m")))) {
      throw new UsageError("only -m, -x and --set-file=- are supported on this stand-in");
    }
    List<String> entries =
        whole
            ? new String(call.in().readAllBytes(), StandardCharsets.UTF_8).lines().toList()
            : List.of(words.get(1).split(","));
    if (entries.stream().anyMatch(entry -> entry.startsWith("d"))) {
      throw new UsageError("there are no lists for new entries on this stand-in");
    }
    List<String> operands = words.subList(whole ? 1 : 2, words.size());
    int status = 0;
    for (String operand : operands) {
      if (operand.equals("--")) {
        continue;
      }
      try {
        String path = call.path(operand);
        Stat stat = call.world().stat(call.caller(), path);
        call.world().setList(call.caller(), path, list(call, whole ? null : stat, stat, entries));
      } catch (PosixError e) {
        status = call.complain(operand, e);
      }
    }
    return status;
  }

  /**
   * @param from what is added to; {@code null} for none
   */
  private static AccessList list(Call call, Stat from, Stat is, List<String> entries) {
    AccessList before = from == null ? null : from.list();
    Map<Integer, Integer> users = new HashMap<>(before == null ? Map.of() : before.users());
    Map<Integer, Integer> groups = new HashMap<>(before == null ? Map.of() : before.groups());
    int group = before == null ? is.mode() >> 3 & 7 : before.owningGroup();
    for (String entry : entries) {
      String[] fields = entry.replaceFirst("\\s*#.*", "").split(":", -1);
      if (fields.length == 2) {
        boolean account = fields[0].startsWith("u");
        (account ? users : groups).remove(number(call, account, fields[1]));
      }
      if (fields.length < 3) {
        continue;
      }
      boolean runs = is.isFolder() || (is.mode() & RUN) != 0;
      int bits = bits(runs ? fields[2].replace('X', 'x') : fields[2]);
      boolean user = fields[0].startsWith("u");
      if (!fields[1].isEmpty()) {
        (user ? users : groups).put(number(call, user, fields[1]), bits);
      } else if (fields[0].startsWith("g")) {
        group = bits;
      }
    }
    return users.isEmpty() && groups.isEmpty() ? null : new AccessList(group, users, groups);
  }

  private static int number(Call call, boolean user, String name) {
    if (name.matches("[0-9]+")) {
      return Integer.parseInt(name);
    }
    var accounts = call.machine().accounts();
    return user ? accounts.user(name).map(Account::uid).orElse(-1) : accounts.gid(name).orElse(-1);
  }

  private static int bits(String letters) {
    return (letters.contains("r") ? 4 : 0)
        | (letters.contains("w") ? 2 : 0)
        | (letters.contains("x") ? 1 : 0);
  }
}
