package zander.core.transfer.compare;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CompletionException;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.transfer.rules.IgnorePatterns;
import zander.core.work.Cancellation;

/**
 * Compares two trees: what only one side has, what is of another kind, and for files of the same
 * size their checksums. A server computes its own where it can; nothing is changed.
 */
public final class TreeComparison {
  private static final int MOST_ROWS = 20_000;
  private static final int AT_ONCE = 256;
  private static final long BYTES_AT_ONCE = 64L << 20;

  /** How something differs. */
  public enum Difference {
    ONLY_HERE,
    ONLY_THERE,
    OTHER_KIND,
    OTHER_CONTENT,
    OTHER_TARGET,
    OTHER_MODE,
    OTHER_TIME,
    /** It could not be read on a side. */
    UNREAD
  }

  /**
   * @param path relative to both sides, in wire form
   * @param node on the source; {@code null} for nothing
   * @param there on the target
   */
  public record Row(
      String path, Difference difference, @Nullable TreeEntry node, @Nullable TreeEntry there) {}

  /**
   * @param files of both sides that are compared by content
   * @param bytes content that is the same
   * @param equal how many are the same in content
   * @param differing what differs in more than mode or time, or could not be read
   * @param rows what differs, at most some thousand
   * @param complete whether all was compared
   */
  public record Report(
      long files, long bytes, long equal, long differing, List<Row> rows, boolean complete) {}

  private final Endpoint source;
  private final Endpoint target;
  private final IgnorePatterns leaveOut;
  private final Cancellation stop;
  private final List<Row> rows = new ArrayList<>();
  private final List<Row> toCompare = new ArrayList<>();
  private long waitingBytes;
  private long files;
  private long bytes;
  private long equal;
  private long differing;

  public TreeComparison(
      Endpoint source, Endpoint target, IgnorePatterns leaveOut, Cancellation stop) {
    this.source = source;
    this.target = target;
    this.leaveOut = leaveOut;
    this.stop = stop;
  }

  /**
   * Compares; waits.
   *
   * @param progress told now and then how far it is
   * @throws java.util.concurrent.CancellationException when it was stopped
   * @throws IOException when a line is lost
   */
  public Report run(List<String> names, Consumer<Report> progress) throws IOException {
    List<IOException> lost = new ArrayList<>();
    new TreePairWalk(source, target, stop)
        .walk(
            names,
            new TreePairWalk.Visitor() {
              @Override
              public boolean pair(
                  String path,
                  @Nullable TreeEntry node,
                  @Nullable TreeEntry there,
                  boolean followed) {
                try {
                  return lost.isEmpty() && visit(path, node, there, progress);
                } catch (IOException e) {
                  lost.add(e);
                  return false;
                }
              }

              @Override
              public void unreadable(String path, IOException why) {
                add(new Row(path, Difference.UNREAD, null, null));
              }
            });
    if (!lost.isEmpty()) {
      throw lost.get(0);
    }
    compare();
    return report(true);
  }

  private Report report(boolean complete) {
    return new Report(files, bytes, equal, differing, List.copyOf(rows), complete);
  }

  private void add(Row row) {
    boolean only =
        row.difference() == Difference.OTHER_MODE || row.difference() == Difference.OTHER_TIME;
    differing += only ? 0 : 1;
    if (rows.size() < MOST_ROWS) {
      rows.add(row);
    }
  }

  private boolean visit(
      String path, @Nullable TreeEntry node, @Nullable TreeEntry there, Consumer<Report> progress)
      throws IOException {
    TreeEntry one = node == null ? there : node;
    if (leaveOut.by(path, FolderPairs.isFolder(one)) != null) {
      return false;
    }
    if (node == null || there == null) {
      add(new Row(path, node == null ? Difference.ONLY_THERE : Difference.ONLY_HERE, node, there));
      return false;
    }
    if (node.kind() != there.kind()) {
      add(new Row(path, Difference.OTHER_KIND, node, there));
      return false;
    }
    if (node.kind() == FileKind.LINK) {
      if (!Objects.equals(node.target(), there.target())) {
        add(new Row(path, Difference.OTHER_TARGET, node, there));
      }
      return false;
    }
    if (!node.mode().equals(there.mode())) {
      add(new Row(path, Difference.OTHER_MODE, node, there));
    } else if (node.modified() != there.modified() && node.kind() == FileKind.FILE) {
      add(new Row(path, Difference.OTHER_TIME, node, there));
    }
    if (node.kind() == FileKind.FILE) {
      files++;
      if (node.size() != there.size()) {
        add(new Row(path, Difference.OTHER_CONTENT, node, there));
      } else {
        toCompare.add(new Row(path, Difference.OTHER_CONTENT, node, there));
        waitingBytes += node.size();
        if (toCompare.size() >= AT_ONCE || waitingBytes >= BYTES_AT_ONCE) {
          compare();
          progress.accept(report(false));
        }
      }
    }
    return node.kind() == FileKind.FOLDER;
  }

  /** Both sides compute theirs at the same time. */
  private void compare() throws IOException {
    stop.throwIfStopped();
    List<String> paths = toCompare.stream().map(Row::path).toList();
    CompletableFuture<List<String>> others =
        CompletableFuture.supplyAsync(
            () -> {
              try {
                return target.digests(paths);
              } catch (IOException e) {
                throw new CompletionException(e);
              }
            });
    List<String> here = source.digests(paths);
    List<String> there;
    try {
      there = others.join();
    } catch (CompletionException e) {
      throw e.getCause() instanceof IOException io ? io : new IOException(e);
    }
    for (int i = 0; i < paths.size(); i++) {
      Row row = toCompare.get(i);
      if (here.get(i) == null || there.get(i) == null) {
        add(new Row(row.path(), Difference.UNREAD, row.node(), row.there()));
      } else if (here.get(i).equals(there.get(i))) {
        equal++;
        bytes += Objects.requireNonNull(row.node()).size();
      } else {
        add(row);
      }
    }
    toCompare.clear();
    waitingBytes = 0;
  }
}
