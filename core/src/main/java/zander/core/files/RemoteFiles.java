package zander.core.files;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.rights.Mode;

/**
 * The files of one server as one account sees them.
 *
 * <p>Every method waits for the server: call none on a thread that must not wait. All may be called
 * by several threads at once. They throw {@link RemoteFailure} when the server refuses or the line
 * is lost. Changes here are the plain ones; {@link zander.core.change.save.AtomicSave} makes a safe
 * save of them.
 */
public interface RemoteFiles extends Closeable {
  /**
   * Lists a folder in the server's order, in portions as they arrive.
   *
   * @param portion given each portion of entries on the calling thread; links in it are not yet
   *     followed
   * @return all entries, links followed and names of accounts known
   */
  List<RemoteEntry> list(RemotePath folder, Consumer<List<RemoteEntry>> portion) throws IOException;

  /**
   * What is found on arrival.
   *
   * @param failure why the folder could not be read; {@code null} when it was
   */
  record Landing(
      RemotePath home,
      RemotePath folder,
      List<RemoteEntry> entries,
      @Nullable RemoteFailure failure) {}

  /**
   * Finds the home folder and reads the folder to land in, both asked for at once.
   *
   * @param wanted a path, absolute or from home; {@code null} for home
   * @param namesAsked waited for before names that are still unknown are asked for
   */
  Landing land(@Nullable String wanted, java.util.concurrent.Future<?> namesAsked)
      throws IOException;

  /** The entry as it is now, with names of accounts and the link followed. */
  RemoteEntry entry(RemotePath path) throws IOException;

  /** The same for many, asked for at once; those that are not there any more are left out. */
  List<RemoteEntry> entries(List<RemotePath> paths) throws IOException;

  /** The attributes, links not followed. */
  RemoteAttributes look(RemotePath path) throws IOException;

  /**
   * Looks at an entry that is about to be deleted, renamed or copied: some servers look through
   * links even where they are asked not to, and would do it to what the link leads to.
   *
   * @throws RemoteFailure with {@code LINKS_FOLLOWED} when this is a link of such a server
   */
  RemoteAttributes lookAtItself(RemotePath path) throws IOException;

  /**
   * The attributes of what the path leads to, links followed.
   *
   * @throws RemoteFailure with {@code LEADS_ELSEWHERE} when it is a link that another account may
   *     have put there; see {@link #othersMayTurn}
   */
  RemoteAttributes lookThrough(RemotePath path) throws IOException;

  /**
   * Whether another account can put something else in the place of an entry, or of a folder on the
   * way to it, while one works there as root. Such an entry is reached by the open handle of its
   * folder, links in its place are not followed, and the server's own programs are not to be given
   * its path. Waits for the server where that is not known.
   */
  default boolean othersMayTurn(RemotePath entry) throws IOException {
    return false;
  }

  /** Where a link points, in wire form, not followed further. */
  String readLink(RemotePath link) throws IOException;

  /** The path with links resolved by the server (SFTP REALPATH). */
  RemotePath realPath(String wire) throws IOException;

  /**
   * Where a file is that is to be changed, with links resolved.
   *
   * @throws RemoteFailure with {@code LEADS_ELSEWHERE} as {@link #lookThrough} does
   */
  default RemotePath realPath(RemotePath path) throws IOException {
    return realPath(path.wire());
  }

  /** Where a folder is, without links that root made on the way to it. */
  default RemotePath trueFolder(RemotePath folder) throws IOException {
    return folder;
  }

  /** The number of the own account there; -1 where it is not known. */
  default int uid() {
    return -1;
  }

  /**
   * The whole content of a file.
   *
   * @throws RemoteFailure with {@code TOO_LARGE} when it has more than {@code limit} bytes
   */
  byte[] readAll(RemotePath file, long limit) throws IOException;

  /**
   * A file that was read whole.
   *
   * @param real where it is, links resolved
   * @param before what it was before it was read
   * @param attributes the same after
   */
  record WholeFile(
      RemotePath real, RemoteAttributes before, RemoteAttributes attributes, byte[] content) {}

  /**
   * Finds a file and reads it, links followed, in three round trips where it is small.
   *
   * @throws RemoteFailure as {@link #readAll}; with {@code TOO_LARGE} before any of it was fetched;
   *     with {@code NOT_SUPPORTED} for what is no file
   */
  WholeFile readWhole(RemotePath file, long limit) throws IOException;

  /** A stream of a file's content with several requests under way. Close it. */
  default InputStream read(RemotePath file) throws IOException {
    return read(file, 0, List.of());
  }

  /**
   * The same from a place in the file, and over several channels at once.
   *
   * @param from bytes from the front that are left out
   * @param more further file services of the same server
   */
  InputStream read(RemotePath file, long from, List<RemoteFiles> more) throws IOException;

  /** Opens a file to be read at any place, in one round trip. Close it. */
  RemoteReader openToRead(RemotePath file) throws IOException;

  /**
   * A file that was just made.
   *
   * @param seen what is at its name, which may be another's by then; {@code null} for nothing
   * @param folder its folder before; {@code null} when it could not be looked at
   */
  record CreatedFile(
      RemoteWriter writer, @Nullable RemoteAttributes seen, @Nullable RemoteAttributes folder) {}

  /** The same as {@link #create(RemotePath, Mode)}, with a look round in the same round trip. */
  CreatedFile createAndLook(RemotePath file, Mode mode) throws IOException;

  /**
   * Creates a file that must not exist yet (O_EXCL) and opens it for writing.
   *
   * @param mode the bits it has from the first moment, before the server's umask
   */
  default RemoteWriter create(RemotePath file, @Nullable Mode mode) throws IOException {
    return create(file, mode, List.of());
  }

  /**
   * The same over several channels at once.
   *
   * @param mode {@code null} for what the server gives new files
   * @param more further file services of the same server
   */
  RemoteWriter create(RemotePath file, @Nullable Mode mode, List<RemoteFiles> more)
      throws IOException;

  /** Opens a file that is there, to write on from a place in it; what is before it stays. */
  RemoteWriter continueFrom(RemotePath file, long from, List<RemoteFiles> more) throws IOException;

  /** Opens a file that is there, to write over it from the front; it keeps its length till then. */
  RemoteWriter rewrite(RemotePath file) throws IOException;

  /**
   * Renames over whatever file is at {@code to}, in one step, as POSIX {@code rename} does.
   *
   * @return the folder of {@code to} after it; {@code null} when it could not be looked at
   * @throws RemoteFailure with {@code NOT_SUPPORTED} where the server cannot
   */
  @Nullable RemoteAttributes renameOver(RemotePath from, RemotePath to) throws IOException;

  /** Whether {@link #renameOver} can be done here. */
  boolean renamesOver();

  /** Renames to a name that is free. */
  void rename(RemotePath from, RemotePath to) throws IOException;

  void makeFolder(RemotePath folder, Mode mode) throws IOException;

  /** Removes a file or a link, not a folder. */
  void removeFile(RemotePath file) throws IOException;

  /** Removes an empty folder. */
  void removeFolder(RemotePath folder) throws IOException;

  void makeLink(RemotePath link, String wireTarget) throws IOException;

  void setMode(RemotePath path, Mode mode) throws IOException;

  void setOwner(RemotePath path, int uid, int gid) throws IOException;

  /** Sets the times, in seconds since 1970-01-01 UTC. */
  void setTimes(RemotePath path, long accessed, long modified) throws IOException;

  /** The file system where the path lies; {@code null} when the server does not tell. */
  @Nullable DiskSpace space(RemotePath path) throws IOException;

  /**
   * Gives a file one more name.
   *
   * @throws RemoteFailure with {@code NOT_SUPPORTED} where the server cannot
   */
  void hardLink(RemotePath from, RemotePath to) throws IOException;

  /** Whether the server copies a file's content without the data coming here. */
  boolean copiesByItself();

  /** Copies a file's content into a new file on the server; only where it can. */
  void copyByItself(RemotePath from, RemotePath to, Mode mode) throws IOException;

  /**
   * Looks at many paths with many requests under way, links not followed.
   *
   * @return in the same order; {@code null} for what cannot be looked at
   */
  List<RemoteAttributes> lookAll(List<RemotePath> paths) throws IOException;

  /**
   * Removes many files or links with many requests under way.
   *
   * @return what the server refused; one that is gone already is no failure
   */
  List<RemoteFailure> removeFiles(List<RemotePath> paths) throws IOException;

  /** The same for empty folders that do not hold each other. */
  List<RemoteFailure> removeFolders(List<RemotePath> paths) throws IOException;

  /** Work on many small files at once. */
  RemoteBatch batch();

  /**
   * How many bytes the server lets be under way to it on this channel: with the line's delay it
   * limits how fast one channel can be written to.
   */
  long window();

  /** Names of accounts and groups on this server. */
  AccountNames names();

  @Override
  void close();
}
