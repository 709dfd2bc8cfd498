package zander.core.find;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import java.util.regex.Pattern;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.files.TreeWalk;
import zander.core.files.WireName;
import zander.core.listing.Listed;
import zander.core.listing.Narrowing;
import zander.core.work.Cancellation;

/**
 * Finds entries below a folder: by the server's {@code find} where there is a shell, by going
 * through the tree otherwise. Either way each is looked at, and only what fits is told.
 */
public final class NameSearch {
  private static final int PORTION = 200;

  /** What was found is not kept back for longer where more comes slowly. */
  private static final Duration LONGEST_UNTOLD = Duration.ofMillis(200);

  /** What a shell ends with when it cannot run a program (POSIX XCU 2.8.2). */
  private static final int NOT_FOUND = 127;

  private static final int NOT_EXECUTABLE = 126;

  private static final Pattern CANNOT =
      Pattern.compile(
          "unrecognized|unknown (option|predicate)|invalid (option|predicate)|illegal option"
              + "|not supported|[Uu]sage:|restricted");

  private final RemoteFiles files;
  private final Commands commands;

  public NameSearch(RemoteFiles files, Commands commands) {
    this.files = files;
    this.commands = commands;
  }

  /**
   * @param byServer whether the server searched by itself
   * @param unreadable folders that this account may not look into
   */
  public record Outcome(boolean byServer, long unreadable) {}

  /**
   * @param found given what fits as it is found, on one thread at a time
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  public Outcome run(
      RemotePath folder, Narrowing what, Consumer<List<RemoteEntry>> found, Cancellation stop)
      throws IOException {
    Names names = new Names(what, found);
    return commands.byShellOr(
        () -> byServer(folder, names, stop), () -> byFiles(folder, what, found, stop));
  }

  private Outcome byServer(RemotePath folder, Names names, Cancellation stop) throws IOException {
    StringBuilder script = new StringBuilder("find " + ShellWords.quote(folder));
    script.append(" -mindepth 1");
    names
        .what
        .forFind(files.names())
        .forEach(word -> script.append(' ').append(ShellWords.quoteWire(word)));
    ExecResult result = commands.stream(script + " -print0", names::add, stop);
    if (result.exit() != 0 && !names.seen && !couldRun(result)) {
      return byFiles(folder, names.what, names.found, stop);
    }
    names.end();
    return new Outcome(true, unreadable(result));
  }

  /** Whether what it complains of are places, and not its own words or that it is not there. */
  static boolean couldRun(ExecResult result) {
    return result.exit() != NOT_FOUND
        && result.exit() != NOT_EXECUTABLE
        && !CANNOT.matcher(result.errorText()).find();
  }

  /** How many places it may not look into; it complains of other things as well. */
  static long unreadable(ExecResult result) {
    return result.errorText().lines().filter(line -> line.endsWith("Permission denied")).count();
  }

  /** Takes names apart at their ends (NUL), and asks what each is, many at a time. */
  private final class Names {
    private final Narrowing what;
    private final Consumer<List<RemoteEntry>> found;
    private final ByteArrayOutputStream name = new ByteArrayOutputStream();
    private final List<RemotePath> waiting = new ArrayList<>();
    private boolean seen;

    Names(Narrowing what, Consumer<List<RemoteEntry>> found) {
      this.what = what;
      this.found = found;
    }

    void add(byte[] part) throws IOException {
      for (byte b : part) {
        if (b == 0) {
          seen = true;
          waiting.add(RemotePath.ofWire(WireName.fromBytes(name.toByteArray())));
          name.reset();
        } else {
          name.write(b);
        }
        if (waiting.size() >= PORTION) {
          look();
        }
      }
    }

    private void look() throws IOException {
      List<RemoteEntry> fitting =
          files.entries(waiting).stream().filter(entry -> what.fits(Listed.of(entry))).toList();
      waiting.clear();
      if (!fitting.isEmpty()) {
        found.accept(fitting);
      }
    }

    void end() throws IOException {
      if (!waiting.isEmpty()) {
        look();
      }
    }
  }

  private Outcome byFiles(
      RemotePath folder, Narrowing what, Consumer<List<RemoteEntry>> found, Cancellation stop)
      throws IOException {
    long[] unreadable = {0};
    List<RemoteEntry> waiting = new ArrayList<>();
    new TreeWalk(files, stop)
        .below(
            folder,
            new TreeWalk.Visitor() {
              private long told = System.nanoTime();

              @Override
              public void entry(RemoteEntry entry) {
                if (what.fits(Listed.of(entry))) {
                  waiting.add(entry);
                }
                long now = System.nanoTime();
                if (waiting.size() >= PORTION || now - told > LONGEST_UNTOLD.toNanos()) {
                  told = now;
                  tell(waiting, found);
                }
              }

              @Override
              public void unreadable(RemotePath closed, RemoteFailure why) throws RemoteFailure {
                if (closed.equals(folder)) {
                  throw why;
                }
                unreadable[0]++;
              }
            });
    tell(waiting, found);
    return new Outcome(false, unreadable[0]);
  }

  private static void tell(List<RemoteEntry> waiting, Consumer<List<RemoteEntry>> found) {
    if (!waiting.isEmpty()) {
      found.accept(List.copyOf(waiting));
      waiting.clear();
    }
  }
}
