package zander.core.connect.command;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.concurrent.ThreadLocalRandom;
import org.apache.sshd.client.channel.ClientChannelEvent;
import org.apache.sshd.common.channel.exception.SshChannelOpenException;
import org.jspecify.annotations.Nullable;
import zander.core.connect.channel.CommandChannel;
import zander.core.connect.channel.Elevation;
import zander.core.connect.channel.SessionPool;
import zander.core.connect.channel.StartTalk;
import zander.core.connect.channel.StreamChannel;
import zander.core.connect.channel.Timeouts;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.WireName;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.Phrase;
import zander.core.work.Cancellation;
import zander.core.work.CappedOutput;

/**
 * One script in the server's {@code sh}. What the account's own start files print before it is
 * taken off: the script's output begins after a line that nobody else can know. The output is
 * handed on by the thread that runs the script, so that whoever takes it may ask the server of it;
 * a slow taker makes the server wait.
 */
public final class ScriptRun {
  private static final byte[] SHELL = "exec sh".getBytes(StandardCharsets.US_ASCII);
  private static final int MOST_ERRORS = 64 * 1024;

  /** Start files print a screen, not a book. */
  private static final int MOST_BEFORE_MARK = 1 << 20;

  private final byte[] marker =
      ("zander-" + Long.toHexString(ThreadLocalRandom.current().nextLong()) + "\n")
          .getBytes(StandardCharsets.US_ASCII);
  private final byte[] input;
  private final Commands.Output output;
  private final CappedOutput errors = new CappedOutput(MOST_ERRORS);

  /** {@code null} for a script of the account itself. */
  private final @Nullable StartTalk talk;

  private volatile @Nullable StreamChannel opening;

  private @Nullable ByteArrayOutputStream before = new ByteArrayOutputStream();

  /**
   * @param wireScript in wire form
   * @param output given what the script writes, on the thread that calls {@link #run}
   * @param elevation by what right another account runs it; {@code null} for none
   */
  public ScriptRun(String wireScript, Commands.Output output, @Nullable Elevation elevation) {
    this.talk = elevation == null ? null : elevation.talk();
    String head = "echo " + new String(marker, StandardCharsets.US_ASCII);
    this.input = WireName.bytes("LC_ALL=C\nexport LC_ALL\n" + head + wireScript + "\n");
    this.output = output;
  }

  public StreamChannel channel() {
    return new StreamChannel(
        talk == null ? SHELL : WireName.bytes(ElevatedCommand.of(talk, "exec sh")));
  }

  public void attach(StreamChannel channel) {
    if (talk == null) {
      channel.setIn(new OnceAnswered(channel, new ByteArrayInputStream(input)));
      channel.setErr(errors);
    } else {
      opening = channel;
      channel.setErr(talk.errors(errors));
    }
  }

  private void close() {
    StreamChannel open = opening;
    if (open != null) {
      open.close(false);
    }
  }

  /** Feeds the script once the other account's shell reads it. */
  private void feed(StreamChannel channel, StartTalk way) throws IOException {
    OutputStream in = channel.getInvertedIn();
    way.await(
        line -> {
          in.write(line);
          in.flush();
        });
    in.write(input);
    in.flush();
    in.close();
  }

  /**
   * Input that is not sent before the command was granted: some servers end the whole connection
   * for input to a command they do not run. The system's {@code sshd} takes none before that
   * anyway, so nothing is waited for that would not be waited for otherwise.
   */
  private static final class OnceAnswered extends FilterInputStream {
    private final CommandChannel channel;

    OnceAnswered(CommandChannel channel, InputStream in) {
      super(in);
      this.channel = channel;
    }

    private boolean isGranted() throws IOException {
      channel.answers().await(Timeouts.ANSWER);
      return !channel.answers().isAnyRefused();
    }

    @Override
    public int read() throws IOException {
      return isGranted() ? super.read() : -1;
    }

    @Override
    public int read(byte[] into, int offset, int length) throws IOException {
      return isGranted() ? super.read(into, offset, length) : -1;
    }
  }

  /** Opens a channel for it and runs it to its end. */
  public ExecResult run(SessionPool lines, Cancellation stop) throws IOException {
    StreamChannel channel;
    if (talk != null) {
      talk.begin(this::close);
    }
    boolean opened = false;
    try {
      channel = lines.open(this::channel, this::attach);
      opened = true;
    } catch (SshChannelOpenException e) {
      throw new RemoteFailure(
          Reason.NO_SHELL,
          FileStep.RUN_A_COMMAND,
          null,
          FilePhrase.NO_ROOM_FOR_A_COMMAND.of(Phrase.of(e)),
          e);
    } finally {
      if (talk != null && !opened) {
        talk.end();
      }
    }
    try {
      return run(channel, stop);
    } finally {
      channel.close(false);
    }
  }

  /** The same over a channel that is open. */
  public ExecResult run(StreamChannel channel, Cancellation stop) throws IOException {
    stop.onStop(() -> channel.close(false));
    if (talk != null) {
      // Not before it was opened: a session without room closes its channel, and another is tried.
      channel.addCloseFutureListener(closed -> talk.end());
      try {
        feed(channel, talk);
      } catch (IOException e) {
        stop.throwIfStopped();
        throw e;
      }
    }
    InputStream out = channel.output();
    byte[] buffer = new byte[64 * 1024];
    for (int count; (count = out.read(buffer, 0, buffer.length)) >= 0; ) {
      stop.throwIfStopped();
      take(Arrays.copyOf(buffer, count));
    }
    stop.throwIfStopped();
    channel.waitFor(EnumSet.of(ClientChannelEvent.CLOSED), Duration.ZERO);
    stop.throwIfStopped();
    Integer exit = channel.getExitStatus();
    boolean ended = exit != null || channel.getExitSignal() != null;
    if (!ended && !channel.answers().isAnyRefused()) {
      throw new RemoteFailure(
          Reason.LINE_LOST, FileStep.RUN_A_COMMAND, null, FilePhrase.NO_EXIT_STATUS.of(), null);
    }
    if (before != null) {
      throw new RemoteFailure(
          Reason.NO_SHELL,
          FileStep.RUN_A_COMMAND,
          null,
          channel.answers().isAnyRefused() ? FilePhrase.RUNS_NO_COMMANDS.of() : saidInstead(exit),
          null);
    }
    return new ExecResult(exit == null ? -1 : exit, new byte[0], errors.toByteArray());
  }

  /** What came in place of the script's own beginning. */
  private Phrase saidInstead(Integer exit) {
    byte[] first = before == null ? new byte[0] : before.toByteArray();
    String text = WireName.fromBytes(first) + WireName.fromBytes(errors.toByteArray());
    return text.lines()
        .filter(line -> !line.isBlank())
        .findFirst()
        .map(line -> Phrase.quoted(WireName.toText(line.strip())))
        .orElseGet(() -> FilePhrase.SHELL_ENDED.of(exit));
  }

  /** Passes on what comes after the marker. */
  private void take(byte[] part) throws IOException {
    if (before == null) {
      output.take(part);
      return;
    }
    before.writeBytes(part);
    byte[] seen = before.toByteArray();
    for (int at = 0; at + marker.length <= seen.length; at++) {
      if (Arrays.equals(seen, at, at + marker.length, marker, 0, marker.length)) {
        before = null;
        if (at + marker.length < seen.length) {
          output.take(Arrays.copyOfRange(seen, at + marker.length, seen.length));
        }
        return;
      }
    }
    if (seen.length > MOST_BEFORE_MARK) {
      throw new RemoteFailure(
          Reason.NO_SHELL,
          FileStep.RUN_A_COMMAND,
          null,
          FilePhrase.START_FILES_WITHOUT_END.of(),
          null);
    }
  }
}
