package zander.standin.server;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import org.apache.sshd.server.Environment;
import org.apache.sshd.server.ExitCallback;
import org.apache.sshd.server.channel.ChannelSession;
import org.apache.sshd.server.command.Command;
import zander.standin.world.Account;
import zander.standin.world.Machine;

/**
 * The file service of a made-up server: reads requests, answers them in order, over one channel.
 */
final class SftpService implements Command {
  private static final int LONGEST_PACKET = 300 * 1024;

  private final Machine machine;
  private final Faults faults;
  private final Account account;
  private InputStream in;
  private OutputStream out;
  private ExitCallback exit;
  private Thread thread;

  SftpService(Machine machine, Faults faults, Account account) {
    this.machine = machine;
    this.faults = faults;
    this.account = account;
  }

  @Override
  public void setInputStream(InputStream in) {
    this.in = in;
  }

  @Override
  public void setOutputStream(OutputStream out) {
    this.out = out;
  }

  @Override
  public void setErrorStream(OutputStream err) {}

  @Override
  public void setExitCallback(ExitCallback callback) {
    this.exit = callback;
  }

  @Override
  public void start(ChannelSession channel, Environment environment) {
    thread = new Thread(this::serve, "standin-sftp");
    thread.setDaemon(true);
    thread.start();
  }

  private void serve() {
    SftpRequests requests = new SftpRequests(machine, faults, account);
    try (DataInputStream from = new DataInputStream(new BufferedInputStream(in));
        DataOutputStream to = new DataOutputStream(new BufferedOutputStream(out, 1 << 16))) {
      while (true) {
        int length = from.readInt();
        if (length < 1 || length > LONGEST_PACKET) {
          throw new IOException("packet of " + length + " bytes");
        }
        byte[] body = new byte[length];
        from.readFully(body);
        if (!faults.delay().isZero()) {
          Thread.sleep(faults.delay().toMillis());
        }
        byte[] answer = requests.answer(new Packet(body));
        to.writeInt(answer.length);
        to.write(answer);
        if (from.available() == 0) {
          to.flush();
        }
      }
    } catch (EOFException e) {
      exit.onExit(0);
    } catch (IOException | RuntimeException e) {
      exit.onExit(1, String.valueOf(e.getMessage()));
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }

  @Override
  public void destroy(ChannelSession channel) {
    thread.interrupt();
  }
}
