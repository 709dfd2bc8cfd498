package zander.standin.shell.command;

import java.io.IOException;
import java.util.Map;
import java.util.function.IntFunction;
import zander.core.rights.Mode;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.LongLine;
import zander.standin.shell.process.Options;
import zander.standin.world.AccessList;
import zander.standin.world.Accounts;
import zander.standin.world.PosixError;
import zander.standin.world.Stat;

/** {@code getfacl}, as its manual page documents the output. */
public final class AccessListCommand {
  private AccessListCommand() {}

  public static int run(Call call) throws IOException {
    Options options = call.options("cpEns", "");
    int status = 0;
    for (String operand : options.operands(1)) {
      try {
        Stat stat = call.world().stat(call.caller(), call.path(operand));
        if (stat.list() != null || !options.has('s')) {
          print(call, options, operand, stat);
        }
      } catch (PosixError e) {
        status = call.complain(operand, e);
      }
    }
    return status;
  }

  private static void print(Call call, Options options, String name, Stat stat) throws IOException {
    // Without accounts, all that is printed is numbers.
    Accounts accounts = options.has('n') ? new Accounts() : call.machine().accounts();
    StringBuilder text = new StringBuilder();
    if (!options.has('c')) {
      String shown = options.has('p') ? name : name.replaceFirst("^/+", "");
      text.append("# file: ").append(shown).append('\n');
      text.append("# owner: ").append(LongLine.owner(stat, accounts)).append('\n');
      text.append("# group: ").append(LongLine.group(stat, accounts)).append('\n');
    }
    AccessList list = stat.list();
    line(text, "user:", stat.mode() >> 6);
    if (list == null) {
      line(text, "group:", stat.mode() >> 3);
    } else {
      lines(text, "user:", list.users(), uid -> accounts.userName(uid).orElse("" + uid));
      line(text, "group:", list.owningGroup());
      lines(text, "group:", list.groups(), gid -> accounts.groupName(gid).orElse("" + gid));
      line(text, "mask:", stat.mode() >> 3);
    }
    line(text, "other:", stat.mode());
    call.out().print(text.append('\n').toString());
  }

  private static void lines(
      StringBuilder text, String kind, Map<Integer, Integer> entries, IntFunction<String> name) {
    entries.forEach((number, bits) -> line(text, kind + name.apply(number), bits));
  }

  private static void line(StringBuilder text, String who, int bits) {
    text.append(who).append(':').append(new Mode(bits & 7).letters().substring(6)).append('\n');
  }
}
