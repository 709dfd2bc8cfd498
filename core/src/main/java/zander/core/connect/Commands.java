package zander.core.connect;

import java.io.IOException;
import java.util.function.Consumer;
import zander.core.work.Cancellation;

/**
 * Runs scripts for a POSIX shell on the server. All methods but {@link #hasShell} wait; several
 * threads may call them.
 */
public interface Commands {
  /** Whether the account may run commands at all. */
  boolean hasShell();

  /**
   * Runs a script in {@code sh}, given on its standard input, so that neither the account's login
   * shell nor the length of a command line matters. Messages come in the C locale.
   *
   * @param wireScript in wire form; quote with {@link ShellWords}
   * @param output given what it writes as it comes, on a thread of its own
   * @param stop ends it: its pipes close
   * @return the exit status, and what it wrote to its error stream; its output is empty
   * @throws zander.core.files.RemoteFailure with {@code LINE_LOST} when it got no status
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  ExecResult stream(String wireScript, Consumer<byte[]> output, Cancellation stop)
      throws IOException;

  /** The same for a script whose whole output is wanted. */
  ExecResult script(String wireScript) throws IOException;

  /**
   * Starts a script that is fed and read while it runs.
   *
   * @param wireScript in wire form; quote with {@link ShellWords}. It is part of the command, which
   *     others on the server may see while it runs
   * @throws IOException when the server has no room for it
   */
  Pipe pipe(String wireScript) throws IOException;

  /** What the server's own tools can do; asked once for each connection. */
  Tools tools() throws IOException;
}
