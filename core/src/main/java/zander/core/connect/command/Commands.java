package zander.core.connect.command;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import org.jspecify.annotations.Nullable;
import zander.core.files.AnswerBounds;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;
import zander.core.work.Cancellation;

/**
 * Runs scripts for a POSIX shell on the server. All methods but {@link #mayHaveShell} and {@link
 * #whyNoShell} wait; several threads may call them.
 */
public interface Commands {
  /** Where there is nothing but a file service. */
  Commands NONE =
      new Commands() {
        @Override
        public boolean hasShell() {
          return false;
        }

        @Override
        public ExecResult stream(String wireScript, Output output, Cancellation stop)
            throws IOException {
          throw noShell(FileStep.RUN_A_COMMAND, null);
        }

        @Override
        public Pipe pipe(String wireScript) throws IOException {
          throw noShell(FileStep.RUN_A_COMMAND, null);
        }

        @Override
        public ServerTools tools() {
          return ServerTools.NONE;
        }
      };

  /**
   * Whether the account's shell runs scripts. Waits only where that is not known yet: a shell whose
   * start files are slow, or one that the server had no room for at first.
   */
  boolean hasShell();

  /** Whether there may be one, as far as is known by now; never waits. */
  default boolean mayHaveShell() {
    return hasShell();
  }

  /** Why there is none; {@code null} where there is one, or may be. */
  default @Nullable Phrase whyNoShell() {
    return null;
  }

  /** What fails for want of a shell, with why there is none. */
  default RemoteFailure noShell(FileStep step, @Nullable RemotePath about) {
    Phrase why = whyNoShell();
    return new RemoteFailure(
        Reason.NO_SHELL, step, about, why == null ? Phrase.quoted("") : why, null);
  }

  /** Work that asks a server. */
  interface Way<T> {
    T run() throws IOException;
  }

  /**
   * Does work by the shell where one runs scripts, and in another way where there is none or it
   * turns out not to run any.
   *
   * @param byShell must have had no effect when it fails with {@code NO_SHELL}
   */
  default <T> T byShellOr(Way<T> byShell, Way<T> otherwise) throws IOException {
    T done = byShellOrNull(byShell::run);
    return done == null ? otherwise.run() : done;
  }

  /** Work that a server may have no program for. */
  interface Perhaps<T> {
    @Nullable T run() throws IOException;
  }

  /**
   * Does work by the shell where one runs scripts.
   *
   * @param byShell must have had no effect when it fails with {@code NO_SHELL}
   * @return {@code null} where there is no shell, or no program for it
   */
  default <T> @Nullable T byShellOrNull(Perhaps<T> byShell) throws IOException {
    if (!hasShell()) {
      return null;
    }
    try {
      return byShell.run();
    } catch (RemoteFailure e) {
      if (e.reason() != Reason.NO_SHELL) {
        throw e;
      }
      return null;
    }
  }

  /** Takes what a script writes. */
  interface Output {
    void take(byte[] part) throws IOException;
  }

  /**
   * Runs a script in {@code sh}, given on its standard input, so that neither the account's login
   * shell nor the length of a command line matters. Messages come in the C locale.
   *
   * @param wireScript in wire form; quote with {@link ShellWords}
   * @param output given what it writes as it comes, on the calling thread: it may ask the server,
   *     and while it does, the script waits
   * @param stop ends it: its pipes close
   * @return the exit status, and what it wrote to its error stream; its output is empty
   * @throws RemoteFailure with {@code LINE_LOST} when it got no status, and with {@code NO_SHELL}
   *     when the script did not begin
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  ExecResult stream(String wireScript, Output output, Cancellation stop) throws IOException;

  /**
   * The same for a script whose whole output is wanted.
   *
   * @throws RemoteFailure with {@code BAD_ANSWER} when it writes more than {@link
   *     AnswerBounds#SCRIPT}
   */
  default ExecResult script(String wireScript) throws IOException {
    ByteArrayOutputStream out = new ByteArrayOutputStream();
    ExecResult result =
        stream(
            wireScript,
            part -> {
              if (out.size() + part.length > AnswerBounds.SCRIPT) {
                throw new RemoteFailure(
                    Reason.BAD_ANSWER,
                    FileStep.RUN_A_COMMAND,
                    null,
                    FilePhrase.TOO_MUCH_WRITTEN.of(),
                    null);
              }
              out.writeBytes(part);
            },
            new Cancellation());
    return new ExecResult(result.exit(), out.toByteArray(), result.errors());
  }

  /**
   * Starts a script that is fed and read while it runs.
   *
   * @param wireScript in wire form; quote with {@link ShellWords}. It is part of the command, which
   *     others on the server may see while it runs
   * @throws IOException when the server has no room for it
   */
  Pipe pipe(String wireScript) throws IOException;

  /** What the server's own tools can do; asked once for each connection. */
  ServerTools tools() throws IOException;
}
