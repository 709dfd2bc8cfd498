package zander.core.change.rights;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CancellationException;
import java.util.function.LongConsumer;
import zander.core.access.AccessLists;
import zander.core.change.place.EnteredFolder;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.work.Cancellation;

/**
 * Reads and sets the access lists of many entries by the server's {@code getfacl} and {@code
 * setfacl}, many names at once. Where another account can turn names, each entry is opened first,
 * seen to be the file that was looked at (by its number, and that of its file system), and the tool
 * gets the open handle. For one thread.
 */
final class ListTools {
  /**
   * Commands have an end (ARG_MAX, 128 KiB at least on Linux), and between two it can be stopped.
   */
  private static final int MOST_NAMES = 500;

  private static final int MOST_BYTES = 80_000;

  /**
   * A list with more letters is none (acl(5): a file system keeps some hundred entries at most).
   */
  private static final int LONGEST = 64 * 1024;

  private static final int NO_TOOL = 126;
  private static final FileStep STEP = FileStep.SET_ACCESS_LISTS_IN;

  /** Gives the tool, a function {@code t}, the handle of what is still the file it was. */
  private static final String BY_HANDLE =
      "z() { if [ ! -h \"$2\" ] && { [ -f \"$2\" ] || [ -d \"$2\" ]; }; then"
          + " { [ \"$(stat -Lc %d:%i /proc/self/fd/3)\" = \"$1\" ]"
          + " && t /proc/self/fd/3; } 3< \"$2\";"
          + " fi; }\n";

  private final Commands commands;
  private final RemotePath base;
  private final String enter;
  private final long device;

  /**
   * @param base where the paths begin
   * @param device the number of the file system that all are on
   */
  ListTools(RemoteFiles files, Commands commands, RemotePath base, long device) throws IOException {
    this.device = device;
    this.commands = commands;
    this.base = base;
    this.enter = EnteredFolder.enter(files, base);
  }

  /** One entry that is meant. */
  record Meant(String path, boolean folder, long file) {
    private String name() {
      return ShellWords.quoteWire(path.isEmpty() ? "." : "./" + path);
    }
  }

  /**
   * The lists of those that are there, by their paths. What else a server writes is not kept.
   *
   * @param done told how many are read, now and then
   */
  Map<String, String> read(List<Meant> all, LongConsumer done, Cancellation stop)
      throws IOException {
    Map<String, String> lists = new HashMap<>();
    Map<String, String> different = new HashMap<>();
    long read = 0;
    for (List<Meant> some : portions(all)) {
      stop.throwIfStopped();
      StringBuilder script = new StringBuilder(enter + "getfacl -pn --");
      some.forEach(one -> script.append(' ').append(one.name()));
      ExecResult said = commands.script(script + " 2>/dev/null");
      check(said);
      Map<String, String> texts =
          AccessLists.texts(new String(said.out(), StandardCharsets.ISO_8859_1));
      for (Meant one : some) {
        String text = texts.get(one.path);
        if (text != null && text.length() <= LONGEST) {
          // A tree has few different ones.
          lists.put(one.path, different.computeIfAbsent(text, same -> same));
        }
      }
      read += some.size();
      done.accept(read);
    }
    return lists;
  }

  private static List<List<Meant>> portions(List<Meant> all) {
    List<List<Meant>> portions = new ArrayList<>();
    int bytes = MOST_BYTES;
    for (Meant one : all) {
      int takes = one.path.length() + 24;
      List<Meant> last = portions.isEmpty() ? List.of() : portions.get(portions.size() - 1);
      if (bytes + takes > MOST_BYTES || last.size() == MOST_NAMES) {
        last = new ArrayList<>();
        portions.add(last);
        bytes = 0;
      }
      last.add(one);
      bytes += takes;
    }
    return portions;
  }

  private void check(ExecResult said) throws RemoteFailure {
    EnteredFolder.check(said, STEP, base);
    if (said.exit() >= NO_TOOL) {
      throw new RemoteFailure(Reason.NOT_SUPPORTED, STEP, base, FilePhrase.NO_SETFACL.of(), null);
    }
  }

  /**
   * Runs a tool on entries. What it does not do is seen when the lists are read again.
   *
   * @param tool a command that takes names behind it
   * @param byHandle whether names may lead elsewhere by now
   * @param done told how many were come to, now and then
   */
  void run(String tool, List<Meant> all, boolean byHandle, LongConsumer done, Cancellation stop)
      throws IOException {
    long through = 0;
    for (List<Meant> some : portions(all)) {
      if (stop.isStopped()) {
        return;
      }
      StringBuilder script = new StringBuilder(enter);
      if (byHandle) {
        script.append("exec 2>/dev/null\nt() { " + tool + "\"$1\"; }\n" + BY_HANDLE);
        some.forEach(one -> script.append("z " + number(one) + " " + one.name() + "\n"));
      } else {
        script.append(tool).append("--");
        some.forEach(one -> script.append(' ').append(one.name()));
        script.append(" 2>/dev/null\n");
      }
      try {
        check(commands.stream(script.toString(), part -> {}, stop));
      } catch (CancellationException e) {
        // Each has its old list or its new one: which, is seen when they are read again.
        return;
      }
      through += some.size();
      done.accept(through);
    }
  }

  private String number(Meant one) {
    return Long.toUnsignedString(device) + ":" + Long.toUnsignedString(one.file);
  }

  /** Gives entries whole lists. */
  void give(ListStates states, Map<String, String> now, Cancellation stop) throws IOException {
    Map<String, List<Meant>> byTool = new LinkedHashMap<>();
    states.forEach(
        (path, folder, text, file) -> {
          String has = now.get(path);
          if (has != null && !has.equals(text)) {
            byTool
                .computeIfAbsent(tool(folder, text), key -> new ArrayList<>())
                .add(new Meant(path, folder, file));
          }
        });
    for (Map.Entry<String, List<Meant>> one : byTool.entrySet()) {
      boolean numbered = one.getValue().stream().allMatch(each -> each.file != 0);
      run(one.getKey(), one.getValue(), numbered, through -> {}, stop);
    }
  }

  /** A list for new entries stays where the lines name none: it has to be taken away as well. */
  private static String tool(boolean folder, String text) {
    boolean clears = folder && !text.contains("default:");
    return "printf %s "
        + ShellWords.quoteWire(text)
        + " | setfacl "
        + (clears ? "-k " : "")
        + "--set-file=- ";
  }
}
