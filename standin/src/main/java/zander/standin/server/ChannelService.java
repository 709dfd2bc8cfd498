package zander.standin.server;

import java.io.InputStream;
import java.io.OutputStream;
import org.apache.sshd.server.Environment;
import org.apache.sshd.server.ExitCallback;
import org.apache.sshd.server.channel.ChannelSession;
import org.apache.sshd.server.command.Command;

/** What serves one channel on a thread of its own, from the streams the SSH library hands over. */
abstract class ChannelService implements Command {
  protected InputStream in;
  protected OutputStream out;
  protected OutputStream errors;
  protected ExitCallback exit;
  private Thread thread;

  @Override
  public final void setInputStream(InputStream stream) {
    in = stream;
  }

  @Override
  public final void setOutputStream(OutputStream stream) {
    out = stream;
  }

  @Override
  public final void setErrorStream(OutputStream stream) {
    errors = stream;
  }

  @Override
  public final void setExitCallback(ExitCallback callback) {
    exit = callback;
  }

  @Override
  public final void start(ChannelSession channel, Environment environment) {
    Runnable service = prepare(environment);
    thread = new Thread(service, "standin-channel");
    thread.setDaemon(true);
    thread.start();
  }

  /** What to run, made while the channel's environment is at hand. */
  protected abstract Runnable prepare(Environment environment);

  @Override
  public final void destroy(ChannelSession channel) {
    thread.interrupt();
  }
}
