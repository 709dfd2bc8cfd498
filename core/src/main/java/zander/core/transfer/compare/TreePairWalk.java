package zander.core.transfer.compare;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorCompletionService;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.work.BlockingCalls;
import zander.core.work.Cancellation;
import zander.core.work.Workers;

/** Goes through two trees side by side, several folders at a time. Links are never followed. */
public final class TreePairWalk {
  private static final int AT_ONCE = 16;

  private final Endpoint source;
  private final Endpoint target;
  private final Cancellation stop;

  public TreePairWalk(Endpoint source, Endpoint target, Cancellation stop) {
    this.source = source;
    this.target = target;
    this.stop = stop;
  }

  /** Told on the thread that walks; a folder before what is in it. */
  public interface Visitor {
    /**
     * @param node {@code null} when only the target has it
     * @param there {@code null} when only the source has it
     * @return for what is a folder on a side, whether to go into it
     */
    boolean pair(String path, TreeEntry node, TreeEntry there);

    void unreadable(String path, IOException why);
  }

  private record Folder(String path, boolean here, boolean there) {}

  private record Read(Folder folder, FolderPairs pairs, IOException failure) {}

  /**
   * @param names what to begin with, on both sides; those that are on neither are left out
   * @throws CancellationException when it was stopped
   * @throws IOException when a line is lost
   */
  public void walk(List<String> names, Visitor visitor) throws IOException {
    BlockingCalls.check("going through two trees");
    try (Workers readers = new Workers("pair-walk", AT_ONCE)) {
      ExecutorCompletionService<Read> done = new ExecutorCompletionService<>(readers.executor());
      List<TreeEntry> here = source.lookAll(names);
      List<TreeEntry> there = target.lookAll(names);
      int waiting = 0;
      for (int i = 0; i < names.size(); i++) {
        waiting += visit(names.get(i), here.get(i), there.get(i), visitor, done);
      }
      for (; waiting > 0; waiting--) {
        stop.throwIfStopped();
        Read read = done.take().get();
        Folder folder = read.folder();
        if (read.failure() != null) {
          visitor.unreadable(folder.path(), read.failure());
          continue;
        }
        for (FolderPairs.Pair pair : read.pairs().both()) {
          String path = Endpoint.join(folder.path(), pair.node().name());
          waiting += visit(path, pair.node(), pair.there(), visitor, done);
        }
        for (TreeEntry only : read.pairs().onlyThere()) {
          waiting += visit(Endpoint.join(folder.path(), only.name()), null, only, visitor, done);
        }
      }
    } catch (ExecutionException e) {
      throw e.getCause() instanceof IOException io ? io : new IOException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException("interrupted");
    }
  }

  private int visit(
      String path,
      TreeEntry node,
      TreeEntry there,
      Visitor visitor,
      ExecutorCompletionService<Read> done) {
    boolean inside = (node != null || there != null) && visitor.pair(path, node, there);
    if (!inside || !(FolderPairs.isFolder(node) || FolderPairs.isFolder(there))) {
      return 0;
    }
    Folder folder = new Folder(path, FolderPairs.isFolder(node), FolderPairs.isFolder(there));
    done.submit(() -> read(folder));
    return 1;
  }

  private Read read(Folder folder) throws IOException {
    try {
      List<TreeEntry> children = folder.here() ? source.list(folder.path()) : new ArrayList<>();
      return new Read(
          folder,
          FolderPairs.of(children, target, folder.there() ? folder.path() : null, true),
          null);
    } catch (IOException e) {
      if (source.isLost(e) || target.isLost(e)) {
        throw e;
      }
      return new Read(folder, null, e);
    }
  }
}
