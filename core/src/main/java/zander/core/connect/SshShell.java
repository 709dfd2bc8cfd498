package zander.core.connect;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import org.apache.sshd.client.channel.ChannelExec;
import zander.core.work.BlockingCalls;

/** A shell over an exec channel with a terminal. */
final class SshShell implements ShellSession {
  private final ChannelExec channel;
  private final InputStream output;
  private final OutputStream input;

  SshShell(ChannelExec channel) {
    this.channel = channel;
    this.output = channel.getInvertedOut();
    this.input = channel.getInvertedIn();
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
