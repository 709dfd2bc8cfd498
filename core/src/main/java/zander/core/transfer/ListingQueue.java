package zander.core.transfer;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.transfer.endpoint.TreeEntry;

/** What is in a folder, on its way from the thread that lists it to the one that wants it. */
final class ListingQueue {
  private final Deque<List<TreeEntry>> waiting = new ArrayDeque<>();
  private boolean ended;
  private @Nullable Exception failure;

  /** Lists something. */
  interface Listing {
    void run(Consumer<List<TreeEntry>> portion) throws IOException;
  }

  /** Takes what is listed as it comes, and how that ended. */
  void fill(Listing listing) {
    Exception why = new IOException("the folder could not be listed");
    try {
      listing.run(this::add);
      why = null;
    } catch (IOException | RuntimeException e) {
      why = e;
    } finally {
      end(why);
    }
  }

  private synchronized void end(@Nullable Exception why) {
    failure = why;
    ended = true;
    notifyAll();
  }

  private synchronized void add(List<TreeEntry> portion) {
    waiting.addLast(portion);
    notifyAll();
  }

  /**
   * Hands on what came and what comes; waits until all has.
   *
   * @return false when nothing was handed on, because listing failed at once
   * @throws IOException why it failed later
   */
  boolean handTo(Consumer<List<TreeEntry>> portion) throws IOException {
    boolean some = false;
    for (List<TreeEntry> next; (next = next()) != null; some = true) {
      portion.accept(next);
    }
    if (failure instanceof IOException e && some) {
      throw e;
    }
    if (failure instanceof RuntimeException e && some) {
      throw e;
    }
    return failure == null;
  }

  private synchronized List<TreeEntry> next() throws IOException {
    try {
      while (waiting.isEmpty() && !ended) {
        wait();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
    return waiting.pollFirst();
  }
}
