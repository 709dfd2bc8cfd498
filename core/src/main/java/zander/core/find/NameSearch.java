package zander.core.find;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Consumer;
import zander.core.connect.Commands;
import zander.core.connect.ExecResult;
import zander.core.connect.ShellWords;
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
    if (commands.hasShell()) {
      Names names = new Names(what, found);
      StringBuilder script = new StringBuilder("find " + ShellWords.quote(folder));
      script.append(" -mindepth 1");
      what.forFind(files.names())
          .forEach(word -> script.append(' ').append(ShellWords.quoteWire(word)));
      ExecResult result = commands.stream(script + " -print0", names::add, stop);
      names.end();
      if (result.exit() == 0 || names.seen) {
        return new Outcome(true, result.errorText().lines().count());
      }
      if (!result.errorText().matches("(?s).*(unrecognized|unknown|not supported|usage).*")) {
        return new Outcome(true, result.errorText().lines().count());
      }
    }
    return new Outcome(false, byFiles(folder, what, found, stop));
  }

  /** Takes names apart at their ends (NUL), and asks what each is, many at a time. */
  private final class Names {
    private final Narrowing what;
    private final Consumer<List<RemoteEntry>> found;
    private final ByteArrayOutputStream name = new ByteArrayOutputStream();
    private final List<RemotePath> waiting = new ArrayList<>();
    private IOException failure;
    private boolean seen;

    Names(Narrowing what, Consumer<List<RemoteEntry>> found) {
      this.what = what;
      this.found = found;
    }

    void add(byte[] part) {
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

    private void look() {
      if (waiting.isEmpty() || failure != null) {
        return;
      }
      try {
        List<RemoteEntry> entries = files.entries(waiting);
        waiting.clear();
        List<RemoteEntry> fitting =
            entries.stream().filter(entry -> what.fits(Listed.of(entry))).toList();
        if (!fitting.isEmpty()) {
          found.accept(fitting);
        }
      } catch (IOException e) {
        failure = e;
      }
    }

    void end() throws IOException {
      look();
      if (failure != null) {
        throw failure;
      }
    }
  }

  private long byFiles(
      RemotePath folder, Narrowing what, Consumer<List<RemoteEntry>> found, Cancellation stop)
      throws IOException {
    long[] unreadable = {0};
    new TreeWalk(files, stop)
        .below(
            folder,
            new TreeWalk.Visitor() {
              @Override
              public void entry(RemoteEntry entry) {
                if (what.fits(Listed.of(entry))) {
                  found.accept(List.of(entry));
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
    return unreadable[0];
  }
}
