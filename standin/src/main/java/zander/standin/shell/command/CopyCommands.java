package zander.standin.shell.command;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import zander.standin.shell.process.Call;
import zander.standin.shell.process.Command;
import zander.standin.shell.process.Options;
import zander.standin.shell.process.UsageError;
import zander.standin.world.OpenFile;
import zander.standin.world.PosixError;
import zander.standin.world.PosixError.Errno;
import zander.standin.world.Stat;
import zander.standin.world.World;

/** {@code cp} and {@code mv}. */
public final class CopyCommands {
  private CopyCommands() {}

  public static void addTo(Map<String, Command> all) {
    all.put("cp", CopyCommands::cp);
    all.put("mv", CopyCommands::mv);
  }

  static Stat statOrNull(Call call, String path) {
    try {
      return call.world().lstat(call.caller(), path);
    } catch (PosixError e) {
      return null;
    }
  }

  static boolean isFolder(Call call, String path) {
    try {
      return call.world().stat(call.caller(), path).isFolder();
    } catch (PosixError e) {
      return false;
    }
  }

  static String baseName(String path) {
    String trimmed = path.replaceFirst("/+$", "");
    return trimmed.substring(trimmed.lastIndexOf('/') + 1);
  }

  /** The place for one source: inside the target when that is a folder. */
  private static String goal(Call call, List<String> operands, String source) {
    String to = call.path(operands.get(operands.size() - 1));
    if (isFolder(call, to)) {
      return Call.at(to, baseName(source));
    }
    if (operands.size() > 2) {
      throw new UsageError(
          "target '" + operands.get(operands.size() - 1) + "' is not a directory", 1);
    }
    return to;
  }

  private static int mv(Call call) throws IOException {
    Options options = call.options("fT", "");
    List<String> operands = options.operands(2);
    return FileCommands.each(
        call,
        operands.subList(0, operands.size() - 1),
        "cannot move",
        source -> {
          String to = options.has('T') ? call.path(operands.get(1)) : goal(call, operands, source);
          call.world().rename(call.caller(), call.path(source), to);
        });
  }

  private static int cp(Call call) throws IOException {
    Options options = call.options("rRapf", "");
    boolean keep = options.has('a') || options.has('p');
    boolean all = options.has('r') || options.has('R') || options.has('a');
    List<String> operands = options.operands(2);
    return FileCommands.each(
        call,
        operands.subList(0, operands.size() - 1),
        "cannot copy",
        source -> copy(call, call.path(source), goal(call, operands, source), all, keep));
  }

  private static void copy(Call call, String from, String to, boolean all, boolean keep)
      throws IOException {
    World world = call.world();
    Stat stat = all ? world.lstat(call.caller(), from) : world.stat(call.caller(), from);
    if (stat.isLink()) {
      if (statOrNull(call, to) != null) {
        world.unlink(call.caller(), to);
      }
      world.symlink(call.caller(), world.readLink(call.caller(), from), to);
    } else if (stat.isFolder()) {
      if (!all) {
        throw new PosixError(Errno.EISDIR);
      }
      if ((to + "/").startsWith(from + "/")) {
        throw new PosixError(Errno.EINVAL);
      }
      if (!isFolder(call, to)) {
        world.mkdir(call.caller(), to, (stat.mode() & 0777 & ~call.session().umask) | 0700);
      }
      for (String name : world.list(call.caller(), from)) {
        copy(call, Call.at(from, name), Call.at(to, name), true, keep);
      }
    } else {
      byte[] content = call.readFile(from);
      int mode = stat.mode() & 0777 & ~call.session().umask;
      OpenFile file =
          world.open(call.caller(), to, new World.Open(false, true, true, false, true, mode));
      file.write(0, content, 0, content.length);
    }
    if (keep && !stat.isLink()) {
      keepRights(call, stat, to);
    }
  }

  private static void keepRights(Call call, Stat stat, String to) throws PosixError {
    int mode = stat.mode();
    try {
      call.world().chown(call.caller(), to, stat.uid(), stat.gid(), false);
    } catch (PosixError e) {
      // Only root may give files away: the copy stays with the caller, without set-id bits.
      mode &= 01777;
    }
    call.world().chmod(call.caller(), to, mode);
    call.world().setTimes(call.caller(), to, stat.accessed(), stat.modified());
  }
}
