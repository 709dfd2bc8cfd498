package zander.core.connect;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.concurrent.ThreadLocalRandom;
import java.util.function.Consumer;
import org.apache.sshd.client.channel.ChannelExec;
import org.apache.sshd.client.channel.ClientChannelEvent;
import zander.core.files.RemoteFailure;
import zander.core.files.WireName;
import zander.core.work.Cancellation;

/**
 * One script in the server's {@code sh}. What the account's own start files print before it is
 * taken off: the script's output begins after a line that nobody else can know.
 */
final class ScriptRun {
  static final String SHELL = "exec sh";
  private static final int MOST_ERRORS = 64 * 1024;

  private final byte[] marker =
      ("zander-" + Long.toHexString(ThreadLocalRandom.current().nextLong()) + "\n")
          .getBytes(StandardCharsets.US_ASCII);
  private final byte[] input;
  private final Sink out;
  private final ByteArrayOutputStream errors = new ByteArrayOutputStream();

  ScriptRun(String wireScript, Consumer<byte[]> output) {
    String head = "echo " + new String(marker, StandardCharsets.US_ASCII);
    this.input = WireName.bytes("LC_ALL=C\nexport LC_ALL\n" + head + wireScript + "\n");
    this.out = new Sink(output);
  }

  void attach(ChannelExec channel) {
    channel.setIn(new ByteArrayInputStream(input));
    channel.setOut(out);
    channel.setErr(
        new OutputStream() {
          @Override
          public void write(int b) {
            write(new byte[] {(byte) b}, 0, 1);
          }

          @Override
          public void write(byte[] bytes, int offset, int length) {
            errors.write(bytes, offset, Math.min(length, MOST_ERRORS - errors.size()));
          }
        });
  }

  ExecResult await(ChannelExec channel, Cancellation stop) throws IOException {
    stop.onStop(() -> channel.close(false));
    channel.waitFor(EnumSet.of(ClientChannelEvent.CLOSED), Duration.ZERO);
    stop.throwIfStopped();
    if (out.broken != null) {
      throw new RemoteFailure(
          RemoteFailure.Reason.BAD_ANSWER,
          "run a command",
          null,
          String.valueOf(out.broken.getMessage()),
          out.broken);
    }
    Integer exit = channel.getExitStatus();
    if (exit == null && channel.getExitSignal() == null) {
      throw new RemoteFailure(
          RemoteFailure.Reason.LINE_LOST, "run a command", null, "no exit status", null);
    }
    return new ExecResult(exit == null ? -1 : exit, new byte[0], errors.toByteArray());
  }

  /** Passes on what comes after the marker. */
  private final class Sink extends OutputStream {
    private final Consumer<byte[]> output;
    private volatile RuntimeException broken;
    private ByteArrayOutputStream before = new ByteArrayOutputStream();

    Sink(Consumer<byte[]> output) {
      this.output = output;
    }

    /** An answer that cannot be read must not reach the library, which would end the session. */
    private void pass(byte[] part) {
      if (broken == null) {
        try {
          output.accept(part);
        } catch (RuntimeException e) {
          broken = e;
        }
      }
    }

    @Override
    public void write(int b) {
      write(new byte[] {(byte) b}, 0, 1);
    }

    @Override
    public void write(byte[] bytes, int offset, int length) {
      if (before == null) {
        pass(Arrays.copyOfRange(bytes, offset, offset + length));
        return;
      }
      before.write(bytes, offset, length);
      byte[] seen = before.toByteArray();
      for (int at = 0; at + marker.length <= seen.length; at++) {
        if (Arrays.equals(seen, at, at + marker.length, marker, 0, marker.length)) {
          before = null;
          if (at + marker.length < seen.length) {
            pass(Arrays.copyOfRange(seen, at + marker.length, seen.length));
          }
          return;
        }
      }
    }
  }
}
