package zander.core.files;

import java.io.Closeable;
import java.io.IOException;
import org.jspecify.annotations.Nullable;

/**
 * A file that is open to be read at any place. It stays the same file when its name is given to
 * another. All methods wait for the server; for one thread at a time.
 */
public interface RemoteReader extends Closeable {
  /** The path it was opened by. */
  RemotePath path();

  /**
   * Reads a part of it, with many requests under way.
   *
   * @param from bytes from its front
   * @return fewer bytes than asked for only where it ends
   */
  byte[] read(long from, int length) throws IOException;

  /**
   * What it was at one time.
   *
   * @param before what the open file was, asked for before its path
   * @param atPath what is at its path; {@code null} for nothing
   * @param after what the open file was, asked for last
   */
  record Seen(RemoteAttributes before, @Nullable RemoteAttributes atPath, RemoteAttributes after) {
    /**
     * Whether the path still leads to this file, as far as that shows: SFTP version 3 tells no
     * number of a file. What only grows has a size and time at its path between those that the open
     * file had before and after.
     */
    public boolean isAtPath() {
      return atPath != null
          && before.size() <= atPath.size()
          && atPath.size() <= after.size()
          && before.modified() <= atPath.modified()
          && atPath.modified() <= after.modified();
    }
  }

  /** Looks at the open file and at its path, in one round trip. */
  Seen look() throws IOException;

  @Override
  void close() throws IOException;
}
