package zander.core.files;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorCompletionService;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteFailure.Reason;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;
import zander.core.work.BlockingCalls;
import zander.core.work.Cancellation;
import zander.core.work.Workers;

/**
 * Goes through a tree by the file service alone, several folders at a time. Links are seen and
 * never followed. A folder that cannot be read is told and the rest goes on.
 */
public final class TreeWalk {
  private static final int AT_ONCE = 16;

  private final RemoteFiles files;
  private final Cancellation stop;
  private boolean looks;

  public TreeWalk(RemoteFiles files, Cancellation stop) {
    this.files = files;
    this.stop = stop;
  }

  /**
   * Looks once more at each folder before it is gone into, for work that would be done to what a
   * link leads to, on servers that show links as folders.
   */
  public TreeWalk lookingBeforeEntering() {
    looks = true;
    return this;
  }

  /** Told on the thread that walks; a folder before what is in it. */
  public interface Visitor {
    void entry(RemoteEntry entry) throws IOException;

    /** Whether to go into a folder. */
    default boolean enters(RemoteEntry folder) {
      return true;
    }

    default void unreadable(RemotePath folder, RemoteFailure why) throws IOException {}
  }

  private record Listed(
      RemotePath folder, List<RemoteEntry> entries, @Nullable RemoteFailure failure) {}

  /**
   * Visits all that is below a folder, not the folder itself.
   *
   * @throws CancellationException when it was stopped
   * @throws RemoteFailure when the line is lost
   */
  public void below(RemotePath root, Visitor visitor) throws IOException {
    BlockingCalls.check("going through a tree");
    try (Workers readers = new Workers("tree-walk", AT_ONCE)) {
      ExecutorCompletionService<Listed> listed =
          new ExecutorCompletionService<>(readers.executor());
      listed.submit(() -> list(root));
      for (int waiting = 1; waiting > 0; waiting--) {
        stop.throwIfStopped();
        Listed folder = listed.take().get();
        if (folder.failure() != null) {
          visitor.unreadable(folder.folder(), folder.failure());
          continue;
        }
        for (RemoteEntry entry : folder.entries()) {
          visitor.entry(entry);
          if (entry.attributes().isFolder() && visitor.enters(entry)) {
            listed.submit(() -> list(entry.path()));
            waiting++;
          }
        }
      }
    } catch (ExecutionException e) {
      if (e.getCause() instanceof Error error) {
        throw error;
      }
      throw e.getCause() instanceof IOException io ? io : new IOException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new CancellationException("interrupted");
    }
  }

  private Listed list(RemotePath folder) throws RemoteFailure {
    try {
      if (looks) {
        files.lookAtItself(folder);
      }
      return new Listed(folder, files.list(folder, portion -> {}), null);
    } catch (RemoteFailure e) {
      if (e.reason() == Reason.LINE_LOST) {
        throw e;
      }
      return new Listed(folder, new ArrayList<>(), e);
    } catch (IOException e) {
      return new Listed(
          folder,
          new ArrayList<>(),
          new RemoteFailure(Reason.FAILED, FileStep.LIST_FOLDER, folder, Phrase.of(e), e));
    }
  }
}
