package zander.core.files;

import java.io.Closeable;
import java.io.IOException;
import org.jspecify.annotations.Nullable;
import zander.core.rights.Mode;

/**
 * A file on the server that is being written, by its handle. For one thread at a time; waits.
 *
 * <p>Closing it ({@link #close}) without {@link #finish} leaves what was written; the caller
 * removes it.
 */
public interface RemoteWriter extends Closeable {
  /** Appends bytes; several requests are kept under way, so an error may show in a later call. */
  void write(byte[] bytes, int offset, int length) throws IOException;

  /** Goes on from another place in the file, once all before is taken. */
  void moveTo(long place) throws IOException;

  /** Cuts the file to a length, once all before is taken. */
  void cutTo(long length) throws IOException;

  /** How many bytes from the front are known to have been taken by the server. */
  long taken();

  void setOwner(int uid, int gid) throws IOException;

  void setMode(Mode mode) throws IOException;

  /** Sets mode and modification time, in seconds since 1970-01-01 UTC, in one request. */
  void setModeAndTime(Mode mode, long modified) throws IOException;

  /**
   * What became of a file that was completed.
   *
   * @param other what else was looked at, links followed; {@code null} for nothing
   */
  record Completed(RemoteAttributes file, @Nullable RemoteAttributes other) {}

  /**
   * Sets the mode, puts all on the disk as {@link #finish} does, and looks at it by its handle, in
   * one round trip with what is still under way. Only closing it may follow.
   *
   * @param other looked at besides, after all that; {@code null} for nothing
   */
  Completed complete(Mode mode, @Nullable RemotePath other) throws IOException;

  /** The file's attributes as the server sees them now. */
  RemoteAttributes look() throws IOException;

  /**
   * Waits until the server has taken every byte and, where it offers {@code fsync@openssh.com}, has
   * put them on its disk.
   *
   * @return whether they are known to be on the disk
   */
  boolean finish() throws IOException;
}
