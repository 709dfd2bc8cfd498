package zander.core.transfer.endpoint;

import java.io.IOException;
import java.util.List;
import java.util.concurrent.Executor;
import java.util.function.LongConsumer;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.Phrase;
import zander.core.work.Cancellation;

/** The end that is written to. */
public interface Target extends Endpoint {
  /** Whether it is known without waiting for a line that nothing is at any of the paths. */
  default boolean isFree(List<String> paths) throws IOException {
    return false;
  }

  /**
   * Files may arrive.
   *
   * @param like one with the mode and time that they are to have
   * @param many whether it is known that there are many
   * @param elsewhere runs on threads that may wait
   */
  default void expectToWrite(TransferItem like, boolean many, @Nullable Executor elsewhere) {}

  /**
   * Puts small files in their places, each whole or not at all; says of each how it went.
   *
   * @param placed may be run when nothing but answers is waited for: what is asked of this side
   *     then comes after the files
   * @throws java.util.concurrent.CancellationException when it was stopped in between; nothing is
   *     left of those that did not arrive
   */
  void deliver(List<SmallFile> load, Runnable placed, Cancellation stop) throws IOException;

  /**
   * Starts a new file under a temporary name beside its place, or goes on with one.
   *
   * @param part what an earlier try left there, proved to be the beginning of the same file; {@code
   *     null} to begin
   * @throws NameNotPossible when this side cannot hold the name
   */
  Incoming create(TransferItem item, @Nullable Part part) throws IOException;

  /** A file that did not arrive whole: its temporary name, and how much of it is there. */
  record Part(String path, long size) {}

  /** What is left of an earlier try; {@code null} when it is gone. */
  @Nullable Part part(String path) throws IOException;

  /** Takes away what is left of an earlier try. */
  void remove(String part) throws IOException;

  /**
   * Makes folders that are to be filled; their real modes are set when that is done.
   *
   * @return for each what went wrong, or {@code null}
   */
  List<IOException> makeFolders(List<TransferItem> folders) throws IOException;

  /** Makes a link; replaces the file or link that is there, if any. */
  void makeLink(TransferItem link) throws IOException;

  /** Gives folders that are filled their modes and times, in this order. */
  List<IOException> finishFolders(List<TransferItem> folders) throws IOException;

  /** Free room in bytes; -1 where that is not known. */
  long free() throws IOException;

  /** Whether entries may be made in a folder, as far as its mode tells. */
  default boolean mayWrite(TreeEntry folder) {
    return true;
  }

  /** Why a path cannot be on this side; {@code null} when it can. */
  @Nullable Phrase cannotHold(String path);

  /**
   * How contents come here without passing this computer.
   *
   * @param carried told how many bytes more have arrived
   * @return {@code null} where all pass this computer
   */
  default @Nullable DirectRoute directRouteFrom(Source source, LongConsumer carried) {
    return null;
  }

  /** Gives what arrives this owner and group, where that is possible; empty to leave them. */
  default void giveTo(String owner, String group) {}

  /** Whether it failed because there is no room on this side. */
  boolean isFull(IOException failure);

  /** A file that is arriving. Not in its place before {@link #arrive}. */
  interface Incoming extends AutoCloseable {
    void write(byte[] bytes, int offset, int length) throws IOException;

    /** The temporary name, relative to the base, and how much of it is surely there. */
    Part part();

    /**
     * Gives it mode and time and puts it in its place in one step.
     *
     * @param modified seconds since 1970-01-01 UTC; -1 for now
     * @param digest what its SHA-256 must be; {@code null} when that is not asked for
     * @return words on what could not be kept, or {@code null}
     */
    @Nullable Phrase arrive(long modified, @Nullable String digest) throws IOException;

    /** Leaves the temporary file for a later try, when the line is gone. */
    void leave();

    /** Removes the temporary file unless it arrived or was left. */
    @Override
    void close();
  }
}
