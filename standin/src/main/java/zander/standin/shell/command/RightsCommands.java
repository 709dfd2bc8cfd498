package zander.standin.shell.command;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import zander.core.rights.Mode;
import zander.core.rights.SymbolicMode;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Command;
import zander.standin.shell.process.Options;
import zander.standin.shell.process.Trees;
import zander.standin.shell.process.UsageError;
import zander.standin.world.PosixError;

/** {@code chmod}, {@code chown} and {@code chgrp}, one file or a tree. */
public final class RightsCommands {
  private RightsCommands() {}

  public static void addTo(Map<String, Command> all) {
    all.put("chmod", RightsCommands::chmod);
    all.put("chown", call -> change(call, false));
    all.put("chgrp", call -> change(call, true));
  }

  private static int chmod(Call call) throws IOException {
    List<String> rest = call.arguments().subList(1, call.arguments().size());
    boolean recursive = !rest.isEmpty() && rest.get(0).equals("-R");
    // "-w" is a mode here, not an option, so the arguments are taken as they stand.
    List<String> operands = recursive ? rest.subList(1, rest.size()) : rest;
    if (operands.size() < 2) {
      throw new UsageError("missing operand", 1);
    }
    String change = operands.get(0);
    SymbolicMode symbolic = null;
    if (!change.matches("[0-7]{1,4}")) {
      try {
        symbolic = SymbolicMode.parse(change);
      } catch (IllegalArgumentException e) {
        throw new UsageError("invalid mode: '" + change + "'", 1);
      }
    }
    SymbolicMode parsed = symbolic;
    return FileCommands.each(
        call,
        operands.subList(1, operands.size()),
        "changing permissions of",
        operand ->
            eachBelow(
                call,
                operand,
                recursive,
                (path, folder, mode) ->
                    call.world()
                        .chmod(
                            call.caller(),
                            path,
                            parsed == null
                                ? octal(change, mode, folder)
                                : parsed
                                    .apply(new Mode(mode), call.session().umask, folder)
                                    .bits())));
  }

  /** An octal mode of up to four digits leaves a folder's set-id bits that it does not name. */
  private static int octal(String digits, int before, boolean folder) {
    int mode = Integer.parseInt(digits, 8);
    return folder ? mode | (before & 06000) : mode;
  }

  private interface Change {
    void apply(String path, boolean folder, int mode) throws PosixError;
  }

  private static void eachBelow(Call call, String operand, boolean recursive, Change change)
      throws IOException {
    if (!recursive) {
      var stat = call.world().stat(call.caller(), call.path(operand));
      change.apply(call.path(operand), stat.isFolder(), stat.mode());
      return;
    }
    Trees.walk(
        call,
        operand,
        (shown, path, stat) -> {
          if (!stat.isLink()) {
            change.apply(path, stat.isFolder(), stat.mode());
          }
        });
  }

  private static int change(Call call, boolean groupOnly) throws IOException {
    Options options = call.options("Rh", "");
    List<String> operands = options.operands(2);
    String[] names = operands.get(0).split(":", -1);
    if (groupOnly && names.length > 1) {
      throw new UsageError("invalid group: '" + operands.get(0) + "'", 1);
    }
    String group = groupOnly ? names[0] : names.length > 1 ? names[1] : "";
    int uid = groupOnly || names[0].isEmpty() ? -1 : uid(call, names[0]);
    int gid = group.isEmpty() ? -1 : gid(call, group);
    boolean follow = !options.has('h');
    return FileCommands.each(
        call,
        operands.subList(1, operands.size()),
        "changing ownership of",
        operand -> {
          if (options.has('R')) {
            Trees.walk(
                call,
                operand,
                (shown, path, stat) -> call.world().chown(call.caller(), path, uid, gid, false));
          } else {
            call.world().chown(call.caller(), call.path(operand), uid, gid, follow);
          }
        });
  }

  private static int uid(Call call, String name) {
    return call.machine()
        .accounts()
        .user(name)
        .map(account -> account.uid())
        .orElseGet(() -> number(name, "user"));
  }

  private static int gid(Call call, String name) {
    return call.machine().accounts().gid(name).orElseGet(() -> number(name, "group"));
  }

  private static int number(String text, String what) {
    if (!text.matches("[0-9]{1,9}")) {
      throw new UsageError("invalid " + what + ": '" + text + "'", 1);
    }
    return Integer.parseInt(text);
  }
}
