package zander.core.connect.command;

import java.io.Closeable;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.time.Duration;

/**
 * A script running on the server that is fed and read while it runs. The two streams may be used by
 * two threads; all methods wait.
 */
public interface Pipe extends Closeable {
  /** What the script reads; close it to end its input. Not buffered. */
  OutputStream in();

  /** What the script writes. */
  InputStream out();

  /**
   * Waits for a line of the script's error stream, so that nothing is missed of what it said
   * before.
   *
   * @param mark what the line holds
   * @return what came before that line since the last call, in wire form
   * @throws IOException when the stream ended without it, or is more than anyone could want to read
   */
  String errorsUntil(String mark) throws IOException;

  /**
   * Waits for the script's end, having closed its input.
   *
   * @return the exit status, and what is left of its error stream; its output is empty
   * @throws zander.core.files.RemoteFailure with {@code LINE_LOST} when it got no status
   */
  ExecResult finish() throws IOException;

  /**
   * Ends its input, lets it come to its end, and ends it when that takes longer. Nobody may use it
   * meanwhile. Does not fail.
   */
  void endWithin(Duration patience);

  /** Ends it at once if it has not ended. */
  @Override
  void close();
}
