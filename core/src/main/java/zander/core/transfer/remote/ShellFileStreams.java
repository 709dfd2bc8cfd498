package zander.core.transfer.remote;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import org.jspecify.annotations.Nullable;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ShellWords;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.phrase.FileStep;
import zander.core.transfer.server.RemoteContext;

/** A file read or written by a plain program on the server, as one stream without requests. */
final class ShellFileStreams {
  private ShellFileStreams() {}

  /** {@code null} when the server has no room for a program. */
  static @Nullable InputStream read(RemoteContext context, RemotePath file, long from)
      throws IOException {
    String quoted = ShellWords.quote(file);
    String script =
        from == 0 ? "exec cat < " + quoted : "exec tail -c +" + (from + 1) + " < " + quoted;
    Pipe pipe;
    try {
      pipe = context.channels().commands().pipe(script);
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException e) {
      context.strategy().noRoom();
      return null;
    }
    return new Reading(pipe, file);
  }

  /** An end that was not a good one is a failure, not an end. */
  private static final class Reading extends FilterInputStream {
    private final Pipe pipe;
    private final RemotePath file;

    Reading(Pipe pipe, RemotePath file) {
      super(pipe.out());
      this.pipe = pipe;
      this.file = file;
    }

    @Override
    public int read() throws IOException {
      byte[] one = new byte[1];
      return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
    }

    @Override
    public int read(byte[] into, int offset, int length) throws IOException {
      int count;
      try {
        count = in.read(into, offset, length);
      } catch (RemoteFailure e) {
        throw e;
      } catch (IOException e) {
        throw ended(e);
      }
      if (count < 0) {
        IOException failure = ended(null);
        if (failure != null) {
          throw failure;
        }
      }
      return count;
    }

    private @Nullable IOException ended(@Nullable IOException cause) throws IOException {
      ExecResult result = pipe.finish();
      if (result.exit() == 0 && cause == null) {
        return null;
      }
      String said = result.errorText().strip();
      Reason reason =
          said.contains("Permission denied")
              ? Reason.PERMISSION_DENIED
              : said.contains("No such file") ? Reason.NO_SUCH_FILE : Reason.FAILED;
      return new RemoteFailure(reason, FileStep.READ, file, said, cause);
    }

    @Override
    public void close() {
      pipe.close();
    }
  }

  /**
   * Starts writing a file that must not be there yet, closed to others.
   *
   * @return {@code null} when the server has no room for a program
   */
  static @Nullable Pipe write(RemoteContext context, RemotePath part, boolean closed)
      throws IOException {
    String quoted = ShellWords.quote(part);
    String umask = closed ? "umask 077; " : "";
    String script =
        context.strategy().holes()
            ? umask + "exec dd bs=262144 iflag=fullblock conv=sparse,excl status=none of=" + quoted
            : umask + "set -C; exec cat > " + quoted;
    try {
      return context.channels().commands().pipe(script);
    } catch (RemoteFailure e) {
      throw e;
    } catch (IOException e) {
      context.strategy().noRoom();
      return null;
    }
  }
}
