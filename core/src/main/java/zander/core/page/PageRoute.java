package zander.core.page;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;

/** How a page's origin is reached. */
public interface PageRoute {
  /** A connection to it; two threads may use its two streams. */
  interface Line extends Closeable {
    InputStream in();

    OutputStream out();

    @Override
    void close();
  }

  /**
   * Connects; waits.
   *
   * @throws IOException when it cannot be reached
   */
  Line connect(String host, int port) throws IOException;
}
