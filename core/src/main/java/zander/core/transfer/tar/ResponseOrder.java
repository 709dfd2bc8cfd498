package zander.core.transfer.tar;

import java.io.IOException;
import zander.core.connect.command.Pipe;

/**
 * The order of loads that go through one stream: what was asked first is answered first. For
 * several threads.
 */
final class ResponseOrder {
  private long given;
  private long now;
  private boolean ended;

  /**
   * A turn, to be taken before anything is written.
   *
   * @throws IOException when the stream ended: nobody reads what would be written to it
   */
  synchronized long take() throws IOException {
    if (ended) {
      throw new IOException("the stream ended");
    }
    return given++;
  }

  /** How many have a turn and are not done. */
  synchronized long waiting() {
    return given - now;
  }

  /** Waits until all before it are done. */
  synchronized void await(long turn) throws IOException {
    try {
      while (now != turn && !ended) {
        wait();
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
    if (ended) {
      throw new IOException("the stream ended");
    }
  }

  synchronized void done() {
    now++;
    notifyAll();
  }

  /**
   * Ends a program: by the end of its input if it has nothing left to do, because what an account's
   * start files do on the way to it should not be cut off.
   */
  void endOf(Pipe program) {
    boolean idle = waiting() == 0;
    end();
    if (idle) {
      try {
        program.in().close();
        return;
      } catch (IOException e) {
        // It ended by itself, or the line did.
      }
    }
    program.close();
  }

  /** Nobody waits any more. */
  synchronized void end() {
    ended = true;
    notifyAll();
  }
}
