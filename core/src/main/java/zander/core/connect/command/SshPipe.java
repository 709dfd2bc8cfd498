package zander.core.connect.command;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.EnumSet;
import java.util.concurrent.ThreadLocalRandom;
import java.util.concurrent.atomic.AtomicReference;
import org.apache.sshd.client.channel.ClientChannelEvent;
import org.jspecify.annotations.Nullable;
import zander.core.connect.channel.Elevation;
import zander.core.connect.channel.SessionPool;
import zander.core.connect.channel.StartTalk;
import zander.core.connect.channel.StreamChannel;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;

/**
 * A script in the server's {@code sh} with its input and output open. The script is in the command
 * itself, because sshd takes no input before the command runs: that would be a round trip more.
 */
public final class SshPipe implements Pipe {
  private static final int MOST_BEFORE_MARK = 1 << 20;

  private final StreamChannel channel;
  private final ErrorText errors;
  private final byte[] mark;
  private final OutputStream in;
  private final InputStream out;
  private boolean marked;

  private SshPipe(StreamChannel channel, ErrorText errors, byte[] mark) {
    this.channel = channel;
    this.errors = errors;
    this.mark = mark;
    this.in = channel.getInvertedIn();
    this.out = channel.output();
  }

  /**
   * @param wireScript in wire form
   */
  public static SshPipe open(SessionPool lines, String wireScript) throws IOException {
    return open(lines, wireScript, false);
  }

  /**
   * @param agent whether the script may ask for what is lent to its session
   */
  public static SshPipe open(SessionPool lines, String wireScript, boolean agent)
      throws IOException {
    String mark = "zander-" + Long.toHexString(ThreadLocalRandom.current().nextLong()) + "\n";
    ErrorText errors = new ErrorText();
    String script = "echo " + mark.strip() + "; " + wireScript;
    Elevation elevation = lines.elevation();
    StartTalk talk = elevation == null ? null : elevation.talk();
    AtomicReference<StreamChannel> opening = new AtomicReference<>();
    if (talk != null) {
      talk.begin(() -> close(opening.get()));
    }
    String command =
        talk == null
            ? ShellWords.command("export LC_ALL; " + script)
            : ElevatedCommand.of(talk, script);
    StreamChannel channel =
        lines.openIfRoom(
            command,
            made -> {
              made.setErr(talk == null ? errors : talk.errors(errors));
              made.setAgentForwarding(agent);
              opening.set(made);
            });
    channel.addCloseFutureListener(closed -> errors.end());
    if (talk != null) {
      channel.addCloseFutureListener(closed -> talk.end());
      start(channel, talk);
    }
    return new SshPipe(channel, errors, mark.getBytes(StandardCharsets.US_ASCII));
  }

  private static void close(@Nullable StreamChannel channel) {
    if (channel != null) {
      channel.close(false);
    }
  }

  private static void start(StreamChannel channel, StartTalk talk) throws IOException {
    OutputStream in = channel.getInvertedIn();
    try {
      talk.await(
          line -> {
            in.write(line);
            in.flush();
          });
    } catch (IOException e) {
      channel.close(false);
      throw e;
    }
  }

  @Override
  public OutputStream in() {
    return in;
  }

  /** What the account's own start files print before the script begins is taken off. */
  @Override
  public InputStream out() {
    return new InputStream() {
      @Override
      public int read() throws IOException {
        byte[] one = new byte[1];
        return read(one, 0, 1) < 0 ? -1 : one[0] & 0xff;
      }

      @Override
      public int read(byte[] into, int offset, int length) throws IOException {
        if (!marked) {
          passMark();
        }
        return out.read(into, offset, length);
      }
    };
  }

  private void passMark() throws IOException {
    int matched = 0;
    for (int passed = 0; matched < mark.length; passed++) {
      int b = out.read();
      if (b < 0) {
        throw new IOException("the server's shell did not begin the script");
      }
      if (passed > MOST_BEFORE_MARK) {
        // It may go on for ever: nobody is to wait for its end.
        close();
        throw new RemoteFailure(
            Reason.BAD_ANSWER,
            FileStep.RUN_A_COMMAND,
            null,
            FilePhrase.SCRIPT_NOT_BEGUN.of(),
            null);
      }
      matched = b == mark[matched] ? matched + 1 : b == mark[0] ? 1 : 0;
    }
    marked = true;
  }

  @Override
  public String errorsUntil(String text) throws IOException {
    return errors.until(text);
  }

  @Override
  public ExecResult finish() throws IOException {
    try {
      in.close();
    } catch (IOException e) {
      // It ended before it had read all; its status says why.
    }
    channel.waitFor(EnumSet.of(ClientChannelEvent.CLOSED), Duration.ZERO);
    Integer exit = channel.getExitStatus();
    if (exit == null && channel.getExitSignal() == null) {
      throw new RemoteFailure(
          Reason.LINE_LOST, FileStep.RUN_A_COMMAND, null, FilePhrase.NO_EXIT_STATUS.of(), null);
    }
    return new ExecResult(exit == null ? -1 : exit, new byte[0], errors.left());
  }

  @Override
  public void endWithin(Duration patience) {
    // Not by its stream, where somebody may wait to write more.
    channel.endInput();
    channel.waitFor(EnumSet.of(ClientChannelEvent.CLOSED), patience);
    close();
  }

  @Override
  public void close() {
    // Not at once: the server would never hear of it, and keep the program and its channel.
    channel.close(false);
  }
}
