package zander.core.transfer.endpoint;

import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.concurrent.Executor;
import org.jspecify.annotations.Nullable;
import zander.core.work.Cancellation;

/** The end that is read from. */
public interface Source extends Endpoint {
  /**
   * Files may be read: what has to be started for them is started now.
   *
   * @param early files and folders that are wanted for certain, with all small files in them
   * @param elsewhere runs on threads that may wait
   */
  default void expectToRead(List<String> early, @Nullable Executor elsewhere) {}

  /** Whether it is known already that whole folders are transferred from here. */
  default boolean hasFolders() {
    return false;
  }

  /**
   * Reads small files: gives each its content or its failure.
   *
   * @throws java.util.concurrent.CancellationException when it was stopped in between
   */
  void fetch(List<SmallFile> load, Cancellation stop) throws IOException;

  /**
   * Reads a file of any size.
   *
   * @param from bytes from the front that are left out
   */
  InputStream read(TransferItem item, long from) throws IOException;
}
