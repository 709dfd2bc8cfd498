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
import zander.standin.world.Account;
import zander.standin.world.Machine;

/**
 * The file service of a made-up server: reads requests, answers them in order, over one channel.
 */
final class SftpService extends ChannelService {
  private static final int LONGEST_PACKET = 300 * 1024;

  private final Machine machine;
  private final Faults faults;
  private final Account account;

  SftpService(Machine machine, Faults faults, Account account) {
    this.machine = machine;
    this.faults = faults;
    this.account = account;
  }

  @Override
  protected Runnable prepare(Environment environment) {
    return this::serve;
  }

  private void serve() {
    try {
      serve(new SftpRequests(machine, faults, account), faults, in, out);
      exit.onExit(0);
    } catch (IOException | RuntimeException e) {
      exit.onExit(1, String.valueOf(e.getMessage()));
    }
  }

  /** Answers until the input ends. */
  static void serve(SftpRequests requests, Faults faults, InputStream in, OutputStream out)
      throws IOException {
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
      // It was ended.
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
    }
  }
}
