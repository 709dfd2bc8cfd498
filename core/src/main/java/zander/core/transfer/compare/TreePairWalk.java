package zander.core.transfer.compare;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorCompletionService;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.Phrase;
import zander.core.transfer.endpoint.Endpoint;
import zander.core.transfer.endpoint.TreeEntry;
import zander.core.work.BlockingCalls;
import zander.core.work.Cancellation;
import zander.core.work.Workers;

/**
 * Goes through two trees side by side, several folders at a time. Links are followed only where the
 * visitor says so.
 */
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
     * @param followed whether a link of the source leads to it
     * @return for what is a folder on a side, whether to go into it
     */
    boolean pair(
        String path, @Nullable TreeEntry node, @Nullable TreeEntry there, boolean followed);

    void unreadable(String path, IOException why);

    /** Whether a link of the source stands for what it leads to. Called on any thread. */
    default boolean follows(String path, TreeEntry link) {
      return false;
    }

    /**
     * @param why it cannot be followed, in words
     */
    default void notFollowed(String path, TreeEntry link, Phrase why) {}
  }

  /**
   * @param links how many followed links lead to it
   */
  private record Folder(String path, boolean here, boolean there, int links) {}

  /**
   * @param behind what the source's links lead to, by name; those that lead nowhere have {@code
   *     null}
   */
  private record Read(
      Folder folder,
      @Nullable FolderPairs pairs,
      Map<String, TreeEntry> behind,
      @Nullable IOException failure) {}

  /**
   * @param names what to begin with, on both sides; those that are on neither are left out
   * @throws CancellationException when it was stopped
   * @throws IOException when a line is lost
   */
  public void walk(List<String> names, Visitor visitor) throws IOException {
    BlockingCalls.check("going through two trees");
    try (Workers readers = new Workers("pair-walk", AT_ONCE)) {
      ExecutorCompletionService<Read> done = new ExecutorCompletionService<>(readers.executor());
      new Walk(visitor, done).from(names);
    } catch (ExecutionException e) {
      throw e.getCause() instanceof IOException io ? io : new IOException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException("interrupted");
    }
  }

  /** One walk; its fields are used by the thread that walks. */
  private final class Walk {
    private final Visitor visitor;
    private final ExecutorCompletionService<Read> done;
    private int waiting;

    Walk(Visitor visitor, ExecutorCompletionService<Read> done) {
      this.visitor = visitor;
      this.done = done;
    }

    void from(List<String> names) throws IOException, ExecutionException, InterruptedException {
      List<TreeEntry> here = source.lookAll(names);
      List<TreeEntry> there = target.lookAll(names);
      Folder top = new Folder("", true, true, 0);
      List<TreeEntry> nodes = here.stream().filter(Objects::nonNull).toList();
      Map<String, TreeEntry> behind = FollowedLinks.of(source, "", nodes, visitor::follows);
      for (int i = 0; i < names.size(); i++) {
        visit(top, names.get(i), here.get(i), there.get(i), behind);
      }
      for (; waiting > 0; waiting--) {
        stop.throwIfStopped();
        inside(done.take().get());
      }
    }

    private void inside(Read read) {
      Folder folder = read.folder();
      if (read.failure() != null) {
        visitor.unreadable(folder.path(), read.failure());
        return;
      }
      FolderPairs pairs = Objects.requireNonNull(read.pairs());
      for (FolderPairs.Pair pair : pairs.both()) {
        String path = Endpoint.join(folder.path(), pair.node().name());
        visit(folder, path, pair.node(), pair.there(), read.behind());
      }
      for (TreeEntry only : pairs.onlyThere()) {
        visit(folder, Endpoint.join(folder.path(), only.name()), null, only, Map.of());
      }
    }

    private void visit(
        Folder in,
        String path,
        @Nullable TreeEntry node,
        @Nullable TreeEntry there,
        Map<String, TreeEntry> behind) {
      if (node == null && there == null) {
        return;
      }
      TreeEntry real = node;
      boolean followed = false;
      if (node != null && behind.containsKey(node.name())) {
        followed = true;
        real = behind.get(node.name());
        Phrase whyNot = FollowedLinks.whyNot(real, in.links());
        if (whyNot != null) {
          visitor.notFollowed(path, node, whyNot);
          return;
        }
      }
      boolean inside = visitor.pair(path, real, there, followed);
      if (inside && (FolderPairs.isFolder(real) || FolderPairs.isFolder(there))) {
        Folder folder =
            new Folder(
                path,
                FolderPairs.isFolder(real),
                FolderPairs.isFolder(there),
                in.links() + (followed ? 1 : 0));
        waiting++;
        done.submit(() -> read(folder, visitor));
      }
    }
  }

  private Read read(Folder folder, Visitor visitor) throws IOException {
    try {
      List<TreeEntry> children = folder.here() ? source.list(folder.path()) : new ArrayList<>();
      return new Read(
          folder,
          FolderPairs.of(children, target, folder.there() ? folder.path() : null, true),
          FollowedLinks.of(source, folder.path(), children, visitor::follows),
          null);
    } catch (IOException e) {
      if (source.isLost(e) || target.isLost(e)) {
        throw e;
      }
      return new Read(folder, null, Map.of(), e);
    }
  }
}
