package zander.core.connect.command;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.SequenceInputStream;
import java.util.Map;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicReference;
import org.apache.sshd.client.channel.PtyCapableChannelSession;
import org.apache.sshd.common.channel.PtyChannelConfiguration;
import org.apache.sshd.common.channel.exception.SshChannelClosedException;
import org.apache.sshd.core.CoreModuleProperties;
import zander.core.connect.channel.ChannelRequestReplies;
import zander.core.connect.channel.CommandChannel;
import zander.core.connect.channel.Elevation;
import zander.core.connect.channel.LoginShellChannel;
import zander.core.connect.channel.SessionPool;
import zander.core.connect.channel.StartTalk;
import zander.core.connect.channel.Timeouts;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.work.BlockingCalls;
import zander.core.work.Workers;

/** A shell over an exec channel with a terminal. */
public final class SshShell implements ShellSession {
  private final PtyCapableChannelSession channel;
  private InputStream output;
  private final OutputStream input;
  private final String mark;

  private SshShell(PtyCapableChannelSession channel, String mark) {
    this.channel = channel;
    this.mark = mark;
    this.output = channel.getInvertedOut();
    this.input = channel.getInvertedIn();
  }

  private static final Map<String, String> ENVIRONMENT = ShellPlace.environment(System.getenv());

  /**
   * What the server may send ahead of the terminal, in bytes (RFC 4254, section 5.2). It is what
   * still pours out after a command was stopped: a tenth of a second's work, and yet 1.6 MB/s over
   * a line of 80 ms.
   */
  private static final long WINDOW = 128 * 1024;

  /**
   * @param keptAs the name of the session of tmux that keeps it when the line is lost, begun or
   *     gone on with; empty for none
   * @param runsScripts false where the account's shell is known to run none: it is started as the
   *     server does it then, in the home folder
   */
  public static SshShell open(
      SessionPool lines,
      RemotePath folder,
      int columns,
      int rows,
      String keptAs,
      boolean runsScripts)
      throws IOException {
    PtyChannelConfiguration pty = new PtyChannelConfiguration();
    pty.setPtyType("xterm-256color");
    pty.setPtyColumns(columns);
    pty.setPtyLines(rows);
    // Never as whoever signed in, where another account is meant.
    if (!runsScripts && lines.elevation() == null) {
      LoginShellChannel channel =
          lines.open(
              () -> narrowed(new LoginShellChannel(pty, ENVIRONMENT)), SshShell::withTerminal);
      return granted(channel, channel.answers(), "");
    }
    // An exec request with a terminal, because a shell request cannot say in which folder; by sh,
    // because what cd and exec are to the account's own shell is not known.
    String mark = ShellPlace.newMark();
    String login =
        "cd -- "
            + ShellWords.quote(folder)
            + "; "
            + ShellPlace.marking(mark)
            + (keptAs.isEmpty() ? "exec \"${SHELL:-/bin/sh}\" -l" : KeptShell.command(keptAs));
    Elevation right = lines.elevation();
    if (right != null) {
      return asAnother(lines, right, pty, login, mark);
    }
    byte[] command = WireName.bytes(ShellWords.interactive(login));
    CommandChannel channel =
        lines.open(
            () -> narrowed(new CommandChannel(command, pty, ENVIRONMENT)), SshShell::withTerminal);
    return granted(channel, channel.answers(), mark);
  }

  /** What sudo asks in the terminal is answered here, and not shown. */
  private static SshShell asAnother(
      SessionPool lines, Elevation right, PtyChannelConfiguration pty, String login, String mark)
      throws IOException {
    StartTalk talk = right.talk();
    AtomicReference<CommandChannel> opening = new AtomicReference<>();
    talk.begin(
        () -> {
          if (opening.get() != null) {
            opening.get().close(false);
          }
        });
    byte[] command = WireName.bytes(ElevatedCommand.interactive(talk, login));
    CommandChannel channel;
    try {
      channel =
          lines.open(
              () -> narrowed(new CommandChannel(command, pty, ENVIRONMENT)),
              made -> {
                opening.set(made);
                withTerminal(made);
              });
    } catch (IOException e) {
      talk.end();
      throw e;
    }
    // Its end is not the end of what it said: that is read to its end first.
    channel.addCloseFutureListener(closed -> talk.leave());
    SshShell shell = granted(channel, channel.answers(), mark);
    try (Workers hearing = new Workers("start-talk", 1)) {
      Future<InputStream> left = hearing.submit(() -> heard(shell.output, talk));
      talk.await(shell::type);
      shell.output = left.get();
      return shell;
    } catch (IOException e) {
      shell.close();
      throw e;
    } catch (ExecutionException e) {
      shell.close();
      throw new IOException(e.getCause());
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      shell.close();
      throw new IOException("interrupted", e);
    }
  }

  /** Reads until the shell runs; gives what comes from then on. */
  private static InputStream heard(InputStream output, StartTalk talk) throws IOException {
    ByteArrayOutputStream rest = new ByteArrayOutputStream();
    OutputStream into = talk.errors(rest);
    byte[] buffer = new byte[1024];
    try {
      for (int count; !talk.isStarted() && (count = output.read(buffer)) >= 0; ) {
        into.write(buffer, 0, count);
      }
    } finally {
      if (!talk.isStarted()) {
        talk.end();
      }
    }
    return new SequenceInputStream(new ByteArrayInputStream(rest.toByteArray()), output);
  }

  /** The window is fixed as soon as the channel is known to its connection. */
  private static <C extends PtyCapableChannelSession> C narrowed(C made) {
    CoreModuleProperties.WINDOW_SIZE.set(made, WINDOW);
    return made;
  }

  private static void withTerminal(PtyCapableChannelSession made) {
    made.setUsePty(true);
    made.setRedirectErrorStream(true);
  }

  private static SshShell granted(
      PtyCapableChannelSession channel, ChannelRequestReplies answers, String mark)
      throws IOException {
    // Some small servers answer nothing; what they print shows whether there is a shell.
    answers.await(Timeouts.ANSWER);
    if (answers.isAnyRefused()) {
      channel.close(false);
      throw new RemoteFailure(
          Reason.NO_SHELL,
          FileStep.OPEN_A_SHELL,
          null,
          answers.isTerminalRefused()
              ? FilePhrase.NO_TERMINAL_GIVEN.of()
              : FilePhrase.NO_SHELL_STARTED.of(),
          null);
    }
    return new SshShell(channel, mark);
  }

  @Override
  public InputStream output() {
    return output;
  }

  @Override
  public void type(byte[] bytes) throws IOException {
    BlockingCalls.check("typing into a shell");
    try {
      input.write(bytes);
      input.flush();
    } catch (SshChannelClosedException e) {
      throw new IOException("the shell has ended");
    }
  }

  @Override
  public void resize(int columns, int rows) throws IOException {
    BlockingCalls.check("resizing a shell");
    channel.sendWindowChange(columns, rows);
  }

  @Override
  public String mark() {
    return mark;
  }

  @Override
  public boolean isOpen() {
    return channel.isOpen();
  }

  @Override
  public int exit() {
    Integer exit = channel.getExitStatus();
    return exit == null ? -1 : exit;
  }

  @Override
  public void close() {
    channel.close(false);
  }
}
