package zander.standin.shell.command;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Command;
import zander.standin.shell.process.Options;
import zander.standin.shell.process.UsageError;
import zander.standin.world.PosixError;
import zander.standin.world.PosixError.Errno;
import zander.standin.world.Stat;
import zander.standin.world.World;

/** Commands that make and remove entries: mkdir, rmdir, rm, ln, touch. */
public final class FileCommands {
  private FileCommands() {}

  public static void addTo(Map<String, Command> all) {
    all.put("mkdir", FileCommands::mkdir);
    all.put("rmdir", FileCommands::rmdir);
    all.put("rm", FileCommands::rm);
    all.put("ln", FileCommands::ln);
    all.put("touch", FileCommands::touch);
    all.put("readlink", FileCommands::readlink);
  }

  /** Runs a step for each operand; one that fails is told and the next is tried. */
  static int each(Call call, List<String> operands, String what, Step step) throws IOException {
    int status = 0;
    for (String operand : operands) {
      try {
        step.run(operand);
      } catch (PosixError e) {
        status = call.complain(what + " '" + operand + "'", e);
      }
    }
    return status;
  }

  interface Step {
    void run(String operand) throws IOException;
  }

  private static int mkdir(Call call) throws IOException {
    Options options = call.options("p", "m");
    int mode =
        options.value('m') == null ? 0777 & ~call.session().umask : octal(options.value('m'));
    return each(
        call,
        options.operands(1),
        "cannot create directory",
        operand -> {
          String path = call.path(operand);
          if (options.has('p')) {
            makeParents(call, path, mode);
          } else {
            call.world().mkdir(call.caller(), path, mode);
          }
        });
  }

  private static int octal(String text) {
    if (!text.matches("[0-7]{1,4}")) {
      throw new UsageError("only octal modes are supported here on this stand-in");
    }
    return Integer.parseInt(text, 8);
  }

  private static void makeParents(Call call, String path, int mode) throws PosixError {
    StringBuilder at = new StringBuilder();
    for (String name : path.split("/")) {
      if (name.isEmpty()) {
        continue;
      }
      at.append('/').append(name);
      try {
        call.world().mkdir(call.caller(), at.toString(), mode);
      } catch (PosixError e) {
        boolean there =
            e.errno() == Errno.EEXIST && call.world().stat(call.caller(), at.toString()).isFolder();
        if (!there) {
          throw e;
        }
      }
    }
  }

  private static int rmdir(Call call) throws IOException {
    return each(
        call,
        call.options("", "").operands(1),
        "failed to remove",
        operand -> call.world().rmdir(call.caller(), call.path(operand)));
  }

  private static int rm(Call call) throws IOException {
    Options options = call.options("rRfv", "");
    boolean all = options.has('r') || options.has('R');
    return each(
        call,
        options.operands(options.has('f') ? 0 : 1),
        "cannot remove",
        operand -> {
          try {
            remove(call, call.path(operand), all);
            if (options.has('v')) {
              call.out().print("removed '" + operand + "'\n");
            }
          } catch (PosixError e) {
            if (e.errno() != Errno.ENOENT || !options.has('f')) {
              throw e;
            }
          }
        });
  }

  static void remove(Call call, String path, boolean all) throws PosixError {
    Stat stat = call.world().lstat(call.caller(), path);
    if (!stat.isFolder()) {
      call.world().unlink(call.caller(), path);
      return;
    }
    if (!all) {
      throw new PosixError(Errno.EISDIR);
    }
    if (path.matches("/+|.*/\\.\\.?/*")) {
      throw new PosixError(Errno.EPERM);
    }
    for (String name : call.world().list(call.caller(), path)) {
      remove(call, Call.at(path, name), true);
    }
    call.world().rmdir(call.caller(), path);
  }

  private static int ln(Call call) throws IOException {
    Options options = call.options("sfn", "");
    List<String> operands = options.operands(2);
    if (operands.size() > 2) {
      throw new UsageError("more than one target is not supported on this stand-in");
    }
    String to = call.path(operands.get(1));
    if (CopyCommands.isFolder(call, to) && !options.has('n')) {
      to = Call.at(to, CopyCommands.baseName(operands.get(0)));
    }
    try {
      if (options.has('f') && CopyCommands.statOrNull(call, to) != null) {
        call.world().unlink(call.caller(), to);
      }
      if (options.has('s')) {
        call.world().symlink(call.caller(), operands.get(0), to);
      } else {
        call.world().link(call.caller(), call.path(operands.get(0)), to);
      }
      return 0;
    } catch (PosixError e) {
      return call.complain("failed to create link '" + operands.get(1) + "'", e);
    }
  }

  private static int touch(Call call) throws IOException {
    Options options = call.options("c", "d");
    long now = call.machine().clock().instant().getEpochSecond();
    String date = options.value('d');
    if (date != null && !date.matches("@[0-9]+")) {
      throw new UsageError("only -d @SECONDS is supported on this stand-in");
    }
    long time = date == null ? now : Long.parseLong(date.substring(1));
    return each(
        call,
        options.operands(1),
        "cannot touch",
        operand -> {
          String path = call.path(operand);
          if (CopyCommands.statOrNull(call, path) == null) {
            if (options.has('c')) {
              return;
            }
            int mode = 0666 & ~call.session().umask;
            call.world()
                .open(call.caller(), path, new World.Open(false, true, true, false, false, mode));
          }
          call.world().setTimes(call.caller(), path, time, time);
        });
  }

  private static int readlink(Call call) throws IOException {
    Options options = call.options("f", "");
    String path = call.path(options.operands(1).get(0));
    call.out()
        .print(
            (options.has('f')
                    ? call.world().realPath(call.caller(), path)
                    : call.world().readLink(call.caller(), path))
                + "\n");
    return 0;
  }
}
