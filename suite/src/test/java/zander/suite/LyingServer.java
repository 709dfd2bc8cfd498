package zander.suite;

import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.apache.sshd.common.keyprovider.KeyPairProvider;
import org.apache.sshd.server.Environment;
import org.apache.sshd.server.ExitCallback;
import org.apache.sshd.server.SshServer;
import org.apache.sshd.server.channel.ChannelSession;
import org.apache.sshd.server.command.Command;
import org.apache.sshd.server.subsystem.SubsystemFactory;
import zander.standin.demo.DemoKeys;

/**
 * A server that lets everybody in, has one folder with one file, and lies: to the requests of one
 * kind it says what a test wants, and to all commands the same.
 */
final class LyingServer implements AutoCloseable {
  static final int VERSION = 2;
  static final int STATUS = 101;
  static final int HANDLE = 102;
  static final int DATA = 103;
  static final int NAME = 104;
  static final int ATTRS = 105;
  static final int EXTENDED_REPLY = 201;

  static final int INIT = 1;
  static final int OPEN = 3;
  static final int READ = 5;
  static final int LSTAT = 7;
  static final int FSTAT = 8;
  static final int OPENDIR = 11;
  static final int READDIR = 12;
  static final int REALPATH = 16;
  static final int STAT = 17;
  static final int READLINK = 19;
  static final int EXTENDED = 200;
  static final int ANY = 0;

  private static final int FILE = 0100644;
  private static final int FOLDER = 040755;

  /** Says something to a request. */
  interface Lie {
    void to(int id, DataOutputStream out) throws IOException;
  }

  /** What a command writes. */
  interface Says {
    void on(OutputStream out) throws IOException;
  }

  private final SshServer server = SshServer.setUpDefaultServer();
  private volatile int asked = -1;
  private volatile Lie lie;
  private volatile Says says = out -> {};

  LyingServer() throws IOException {
    server.setHost("127.0.0.1");
    server.setPort(0);
    server.setKeyPairProvider(KeyPairProvider.wrap(DemoKeys.pair("lying host")));
    server.setPasswordAuthenticator((name, password, session) -> true);
    server.setKeyboardInteractiveAuthenticator(null);
    server.setCommandFactory((channel, line) -> new Talk(this::command));
    server.setSubsystemFactories(
        List.of(
            new SubsystemFactory() {
              @Override
              public String getName() {
                return "sftp";
              }

              @Override
              public Command createSubsystem(ChannelSession channel) {
                return new Talk(LyingServer.this::files);
              }
            }));
    server.start();
  }

  int port() {
    return server.getPort();
  }

  /**
   * @param type of the requests that are lied to; {@link #ANY} for all but the first
   */
  void lieTo(int type, Lie told) {
    asked = type;
    lie = told;
  }

  void sayToCommands(Says said) {
    says = said;
  }

  void beHonest() {
    asked = -1;
    says = out -> {};
  }

  @Override
  public void close() throws IOException {
    server.stop(true);
  }

  private void command(InputStream in, OutputStream out) throws IOException {
    says.on(out);
  }

  private void files(InputStream raw, OutputStream rawOut) throws IOException {
    DataInputStream in = new DataInputStream(raw);
    DataOutputStream out = new DataOutputStream(rawOut);
    int listed = 0;
    while (true) {
      int length = in.readInt();
      int type = in.readUnsignedByte();
      byte[] rest = in.readNBytes(length - 1);
      int id = new DataInputStream(new java.io.ByteArrayInputStream(rest)).readInt();
      if (type == asked || (asked == ANY && type != INIT)) {
        lie.to(id, out);
      } else if (type == READDIR && listed++ > 0) {
        status(id, 1, "").writeTo(out);
      } else {
        listed = type == OPENDIR ? 0 : listed;
        honest(type, id, rest).writeTo(out);
      }
      out.flush();
    }
  }

  private static ByteArrayOutputStream honest(int type, int id, byte[] rest) throws IOException {
    return switch (type) {
      case INIT -> message(VERSION, out -> out.writeInt(3));
      case REALPATH -> named(id, "/home/warden", FOLDER, 1);
      case OPEN, OPENDIR -> message(HANDLE, id, out -> string(out, "h"));
      case READDIR -> named(id, "level.txt", FILE, 1);
      case LSTAT, STAT, FSTAT -> message(ATTRS, id, out -> attributes(out, FILE));
      case READ -> {
        DataInputStream in = new DataInputStream(new java.io.ByteArrayInputStream(rest));
        in.skipNBytes(4 + 4 + 1);
        yield in.readLong() > 0
            ? status(id, 1, "")
            : message(DATA, id, out -> string(out, "level"));
      }
      case READLINK -> status(id, 4, "no link");
      default -> status(id, 0, "");
    };
  }

  static ByteArrayOutputStream status(int id, int code, String said) throws IOException {
    return message(
        STATUS,
        id,
        out -> {
          out.writeInt(code);
          string(out, said);
          string(out, "");
        });
  }

  /** One name, as often as that. */
  static ByteArrayOutputStream named(int id, String name, int mode, int count) throws IOException {
    return message(
        NAME,
        id,
        out -> {
          out.writeInt(count);
          for (int i = 0; i < count; i++) {
            string(out, count == 1 ? name : name + i);
            string(
                out, "-rw-r--r-- 1 warden web 5 Nov 17 09:14 " + (name.length() > 99 ? "" : name));
            attributes(out, mode);
          }
        });
  }

  static void attributes(DataOutputStream out, int mode) throws IOException {
    out.writeInt(0xf);
    out.writeLong(5);
    out.writeInt(1004);
    out.writeInt(1004);
    out.writeInt(mode);
    out.writeInt(1_700_000_000);
    out.writeInt(1_700_000_000);
  }

  interface Body {
    void on(DataOutputStream out) throws IOException;
  }

  static ByteArrayOutputStream message(int type, int id, Body body) throws IOException {
    return message(
        type,
        out -> {
          out.writeInt(id);
          body.on(out);
        });
  }

  static ByteArrayOutputStream message(int type, Body body) throws IOException {
    ByteArrayOutputStream content = new ByteArrayOutputStream();
    body.on(new DataOutputStream(content));
    ByteArrayOutputStream whole = new ByteArrayOutputStream();
    DataOutputStream out = new DataOutputStream(whole);
    out.writeInt(content.size() + 1);
    out.writeByte(type);
    content.writeTo(out);
    return whole;
  }

  static void string(DataOutputStream out, String text) throws IOException {
    byte[] bytes = text.getBytes(StandardCharsets.ISO_8859_1);
    out.writeInt(bytes.length);
    out.write(bytes);
  }

  private interface Talking {
    void over(InputStream in, OutputStream out) throws IOException;
  }

  /** A command or the file service, on a thread of its own. */
  private static final class Talk implements Command {
    private final Talking talking;
    private InputStream in;
    private OutputStream out;
    private ExitCallback ended;

    Talk(Talking talking) {
      this.talking = talking;
    }

    @Override
    public void setInputStream(InputStream stream) {
      in = stream;
    }

    @Override
    public void setOutputStream(OutputStream stream) {
      out = stream;
    }

    @Override
    public void setErrorStream(OutputStream stream) {}

    @Override
    public void setExitCallback(ExitCallback callback) {
      ended = callback;
    }

    @Override
    public void start(ChannelSession channel, Environment environment) {
      Thread thread = new Thread(this::run, "lying");
      thread.setDaemon(true);
      thread.start();
    }

    private void run() {
      try {
        talking.over(in, out);
        out.flush();
      } catch (IOException | UncheckedIOException e) {
        // The other side has hung up.
      }
      ended.onExit(0);
    }

    @Override
    public void destroy(ChannelSession channel) {}
  }
}
