package zander.standin.shell.command;

import java.io.IOException;
import java.util.List;
import zander.core.rights.Mode;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.LongLine;
import zander.standin.shell.process.Options;
import zander.standin.shell.process.UsageError;
import zander.standin.world.PosixError;
import zander.standin.world.Stat;

/** {@code stat}, with {@code -c FORMAT} as GNU coreutils documents it, and {@code -L}. */
public final class StatCommand {
  private StatCommand() {}

  public static int run(Call call) throws IOException {
    Options options = call.options("L", "c");
    List<String> operands = options.operands(1);
    String format = options.value('c');
    int status = 0;
    for (String operand : operands) {
      try {
        String path = call.path(operand);
        Stat stat =
            options.has('L')
                ? call.world().stat(call.caller(), path)
                : call.world().lstat(call.caller(), path);
        call.out()
            .print(
                format == null
                    ? expand(
                        call,
                        "  File: %n\n  Size: %s\tType: %F\n  Mode: (%a/%A)  Uid: (%u/%U)  Gid: (%g/%G)",
                        operand,
                        stat)
                    : expand(call, format, operand, stat));
        call.out().print("\n");
      } catch (PosixError e) {
        status = call.complain("cannot stat '" + operand + "'", e);
      }
    }
    return status;
  }

  private static String expand(Call call, String format, String name, Stat stat) {
    StringBuilder text = new StringBuilder();
    for (int i = 0; i < format.length(); i++) {
      char c = format.charAt(i);
      if (c != '%' || i + 1 == format.length()) {
        text.append(c);
        continue;
      }
      char letter = format.charAt(++i);
      text.append(
          switch (letter) {
            case '%' -> "%";
            case 'n' -> name;
            case 's' -> stat.size();
            case 'a' -> Integer.toOctalString(stat.mode());
            case 'A' -> LongLine.letter(stat) + Mode.ofStat(stat.mode()).letters();
            case 'f' -> Integer.toHexString(stat.fullMode());
            case 'u' -> stat.uid();
            case 'g' -> stat.gid();
            case 'U' -> LongLine.owner(stat, call.machine().accounts());
            case 'G' -> LongLine.group(stat, call.machine().accounts());
            case 'Y' -> stat.modified();
            case 'X' -> stat.accessed();
            case 'Z' -> stat.changed();
            case 'h' -> stat.links();
            case 'i' -> stat.number();
            case 'F' ->
                stat.isFolder() ? "directory" : stat.isLink() ? "symbolic link" : "regular file";
            default -> throw new UsageError("%" + letter + " is not supported on this stand-in");
          });
    }
    return text.toString();
  }
}
