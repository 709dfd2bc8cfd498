package zander.core.transfer;

import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import java.util.function.LongConsumer;
import zander.core.work.Cancellation;

/**
 * One end of a transfer: a folder on a server or on this computer. Paths are relative to it, in
 * wire form with {@code /} between names, empty for the folder itself. All methods wait; several
 * threads may call them.
 */
public interface Endpoint {
  /** The path for people. */
  String show(String path);

  /** What is in a folder, links not followed. */
  List<TreeEntry> list(String folder) throws IOException;

  /**
   * The same in portions, as they come and in no order.
   *
   * @param portion is called by this thread
   */
  default void list(String folder, Consumer<List<TreeEntry>> portion) throws IOException {
    portion.accept(list(folder));
  }

  /** What is at the path, links not followed; {@code null} for nothing. */
  TreeEntry look(String path) throws IOException;

  /** The same for many; what cannot be looked at is told as nothing. */
  List<TreeEntry> lookAll(List<String> paths) throws IOException;

  /** What a link leads to; {@code null} when it leads nowhere. */
  TreeEntry lookThrough(String link) throws IOException;

  /**
   * Files may be read: what has to be started for them is started now.
   *
   * @param early files and folders that are wanted for certain, with all small files in them
   * @param elsewhere runs on threads that may wait
   */
  default void expectToRead(List<String> early, Executor elsewhere) {}

  /** Whether it is known without waiting for a line that nothing is at any of the paths. */
  default boolean isFree(List<String> paths) throws IOException {
    return false;
  }

  /** Whether it is known already that whole folders cross from here. */
  default boolean hasFolders() {
    return false;
  }

  /**
   * Files may arrive.
   *
   * @param like one with the mode and time that they are to have
   * @param many whether it is known that there are many
   * @param elsewhere runs on threads that may wait
   */
  default void expectToWrite(TransferItem like, boolean many, Executor elsewhere) {}

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

  /**
   * The content of one small file.
   *
   * @return {@code null} when it has more bytes than that
   */
  byte[] content(String path, int limit) throws IOException;

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
  Incoming create(TransferItem item, Part part) throws IOException;

  /** A file that did not arrive whole: its temporary name, and how much of it is there. */
  record Part(String path, long size) {}

  /** What is left of an earlier try; {@code null} when it is gone. */
  Part part(String path) throws IOException;

  /** Takes away what is left of an earlier try. */
  void remove(String part) throws IOException;

  /**
   * SHA-256 of the beginning of a file.
   *
   * @param length bytes from the front; -1 for the whole
   * @return 64 hexadecimal digits
   */
  String digest(String path, long length) throws IOException;

  /** SHA-256 of many files; {@code null} for one that cannot be read. */
  List<String> digests(List<String> paths) throws IOException;

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
  String cannotHold(String path);

  /** How files go to and from this side, and why; empty when there is nothing to say. */
  default String carrier() {
    return "";
  }

  /**
   * Removes what a broken line left lying about.
   *
   * @throws IOException when the line broke again; what is left is tried at the next call
   */
  default void tidyUp() throws IOException {}

  /** Ends programs that do not come to an end by themselves. Does not fail. */
  default void giveUp() {}

  /** Gives up what was opened for the transfer alone. Does not fail. */
  default void end() {}

  /**
   * How contents come here without passing this computer.
   *
   * @param carried told how many bytes more have arrived
   * @return {@code null} where all pass this computer
   */
  default DirectRoute directRouteFrom(Endpoint source, LongConsumer carried) {
    return null;
  }

  /** Gives what arrives this owner and group, where that is possible; empty to leave them. */
  default void giveTo(String owner, String group) {}

  /** Whether a failure is one of this side, so that {@link #why} has the words for it. */
  boolean isOwn(IOException failure);

  /** Whether it failed because there is no room on this side. */
  boolean isFull(IOException failure);

  /** Turns a failure into words about this side. */
  String why(IOException failure);

  /** Whether a failure means that nothing more can be done on this side. */
  boolean isLost(IOException failure);

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
    String arrive(long modified, String digest) throws IOException;

    /** Leaves the temporary file for a later try, when the line is gone. */
    void leave();

    /** Removes the temporary file unless it arrived or was left. */
    @Override
    void close();
  }

  /** A name that cannot be on this side. */
  final class NameNotPossible extends IOException {
    NameNotPossible(String message) {
      super(message);
    }
  }

  /** What arrived is not what was sent. */
  final class NotTheSame extends IOException {
    NotTheSame() {
      super("what arrived is not what was sent: the checksums differ, so it was not put in place");
    }
  }

  static String join(String folder, String name) {
    return folder.isEmpty() ? name : folder + "/" + name;
  }

  static String nameOf(String path) {
    return path.substring(path.lastIndexOf('/') + 1);
  }

  static String folderOf(String path) {
    int slash = path.lastIndexOf('/');
    return slash < 0 ? "" : path.substring(0, slash);
  }
}
