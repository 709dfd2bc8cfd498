package zander.core.files;

import java.io.Closeable;
import java.io.IOException;
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

  /** How many bytes from the front are known to have been taken by the server. */
  long taken();

  void setOwner(int uid, int gid) throws IOException;

  void setMode(Mode mode) throws IOException;

  /** Sets mode and modification time, in seconds since 1970-01-01 UTC, in one request. */
  void setModeAndTime(Mode mode, long modified) throws IOException;

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
