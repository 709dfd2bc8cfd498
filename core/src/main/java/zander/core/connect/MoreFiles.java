package zander.core.connect;

import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import zander.core.files.RemoteFiles;
import zander.core.work.BlockingCalls;
import zander.core.work.Workers;

/** Further channels of the file service of one connection, as far as the server has room. */
final class MoreFiles {
  private final Callable<RemoteFiles> opening;
  private final List<RemoteFiles> open = new ArrayList<>();
  private boolean full;

  MoreFiles(Callable<RemoteFiles> opening) {
    this.opening = opening;
  }

  /** As many as the server has room for, at most as many as asked; waits. */
  synchronized List<RemoteFiles> atMost(int most) {
    BlockingCalls.check("opening the file service");
    int wanted = most - open.size();
    if (wanted > 0 && !full) {
      // At the same time: each takes several round trips to open.
      try (Workers openers = new Workers("more-files", wanted)) {
        List<Future<RemoteFiles>> begun = new ArrayList<>();
        for (int i = 0; i < wanted; i++) {
          begun.add(openers.submit(opening));
        }
        for (Future<RemoteFiles> one : begun) {
          addUnlessRefused(one);
        }
      }
    }
    return List.copyOf(open.subList(0, Math.min(most, open.size())));
  }

  private void addUnlessRefused(Future<RemoteFiles> begun) {
    try {
      open.add(begun.get());
    } catch (ExecutionException e) {
      full = true;
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      full = true;
    }
  }
}
