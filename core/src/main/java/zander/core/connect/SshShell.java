package zander.core.connect;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.Map;
import org.apache.sshd.common.channel.PtyChannelConfiguration;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.work.BlockingCalls;

/** A shell over an exec channel with a terminal. */
final class SshShell implements ShellSession {
  private final CommandChannel channel;
  private final InputStream output;
  private final OutputStream input;

  private SshShell(CommandChannel channel) {
    this.channel = channel;
    this.output = channel.getInvertedOut();
    this.input = channel.getInvertedIn();
  }

  static SshShell open(Lines lines, RemotePath folder, int columns, int rows) throws IOException {
    PtyChannelConfiguration pty = new PtyChannelConfiguration();
    pty.setPtyType("xterm-256color");
    pty.setPtyColumns(columns);
    pty.setPtyLines(rows);
    // An exec request with a terminal, because a shell request cannot say in which folder; by sh,
    // because what cd and exec are to the account's own shell is not known.
    String command =
        ShellWords.interactive(
            "cd -- " + ShellWords.quote(folder) + "; exec \"${SHELL:-/bin/sh}\" -l");
    CommandChannel channel =
        lines.open(
            () ->
                new CommandChannel(WireName.bytes(command), pty, Map.of("COLORTERM", "truecolor")),
            made -> {
              made.setUsePty(true);
              made.setRedirectErrorStream(true);
            });
    boolean answered = channel.awaitAnswers(CoreTimes.OPENING);
    if (!answered || channel.isRefused()) {
      channel.close(false);
      throw new RemoteFailure(
          Reason.NO_SHELL,
          "open a shell",
          null,
          channel.isTerminalRefused()
              ? "the server gives this account no terminal"
              : answered ? "the server runs no commands" : "the server does not answer",
          null);
    }
    return new SshShell(channel);
  }

  @Override
  public InputStream output() {
    return output;
  }

  @Override
  public void type(byte[] bytes) throws IOException {
    BlockingCalls.check("typing into a shell");
    input.write(bytes);
    input.flush();
  }

  @Override
  public void resize(int columns, int rows) throws IOException {
    BlockingCalls.check("resizing a shell");
    channel.sendWindowChange(columns, rows);
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
