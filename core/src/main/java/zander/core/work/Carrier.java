package zander.core.work;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;

/** Carries bytes from one connection to another, on threads of their own. */
public final class Carrier {
  private static final int CHUNK = 64 * 1024;

  private Carrier() {}

  /** Passes on each part as it comes, until either end goes away; waits for both. */
  public static void carry(InputStream from, OutputStream to) {
    byte[] buffer = new byte[CHUNK];
    try {
      for (int count; (count = from.read(buffer)) >= 0; ) {
        to.write(buffer, 0, count);
        to.flush();
      }
    } catch (IOException e) {
      // Either end went away; whoever began this closes the other.
    }
  }

  /** Starts a thread that does not keep the program from ending. */
  public static void start(String name, Runnable task) {
    Thread thread = new Thread(task, name);
    thread.setDaemon(true);
    thread.start();
  }
}
