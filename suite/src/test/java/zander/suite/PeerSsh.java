package zander.suite;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.net.StandardProtocolFamily;
import java.net.UnixDomainSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.SocketChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicReference;
import org.apache.sshd.client.SshClient;
import org.apache.sshd.client.auth.AbstractUserAuth;
import org.apache.sshd.client.auth.UserAuth;
import org.apache.sshd.client.auth.UserAuthFactory;
import org.apache.sshd.client.channel.ChannelExec;
import org.apache.sshd.client.channel.ClientChannelEvent;
import org.apache.sshd.client.session.ClientSession;
import org.apache.sshd.client.session.ClientSessionImpl;
import org.apache.sshd.client.session.SessionFactory;
import org.apache.sshd.common.io.IoSession;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import zander.core.trust.WireKey;

/**
 * What stands at a server of the tests where it has its {@code ssh}: a program of its own that
 * takes the options Zander gives, trusts only the host key it is given, shows the agent which
 * session it is ({@code session-bind@openssh.com}, PROTOCOL.agent of OpenSSH), and has the agent
 * sign.
 */
public final class PeerSsh {
  private static final int NOT_THERE = 255;

  private final Map<String, String> options = new HashMap<>();
  private int port = 22;
  private String account;
  private String host;
  private String command;

  /** The host key and its signature over the session's number, as the key exchange showed them. */
  private final AtomicReference<byte[][]> shown = new AtomicReference<>();

  private PeerSsh(String[] words) {
    for (int i = 0; i < words.length; i++) {
      switch (words[i]) {
        case "-F", "-i" -> i++;
        case "-T" -> {}
        case "-o" -> {
          String[] option = words[++i].split("=", 2);
          options.put(option[0], option[1]);
        }
        case "-p" -> port = Integer.parseInt(words[++i]);
        case "-l" -> account = words[++i];
        case "--" -> {
          host = words[++i];
          command = words[++i];
        }
        default -> throw new IllegalArgumentException(words[i]);
      }
    }
  }

  /** Writes a program into a folder that runs this one. */
  static void install(Path folder, String version) throws IOException {
    Path program = folder.resolve("ssh");
    Files.writeString(
        program,
        """
        #!/bin/sh
        case "$1" in -V) echo '%s' >&2; exit 0;; esac
        export PEER_SSH='%s'
        # Not on the command line, of which the system tells others only the beginning.
        export CLASSPATH='%s'
        exec '%s' -XX:TieredStopAtLevel=1 %s "$@"
        """
            .formatted(
                version,
                folder.resolve("how"),
                System.getProperty("java.class.path"),
                Path.of(System.getProperty("java.home"), "bin", "java"),
                PeerSsh.class.getName()));
    program.toFile().setExecutable(true, false);
  }

  public static void main(String[] words) throws Exception {
    int status = NOT_THERE;
    try {
      status = new PeerSsh(words).run();
    } catch (Exception e) {
      System.err.println("ssh: " + e.getMessage());
    }
    System.exit(status);
  }

  private int run() throws Exception {
    Path how = Path.of(System.getenv("PEER_SSH"));
    String fault = Files.exists(how) ? Files.readString(how).strip() : "";
    if (fault.equals("no route")) {
      throw new IOException("connect to host " + host + " port " + port + ": No route to host");
    }
    try (SshClient client = SshClient.setUpDefaultClient();
        SocketChannel agent = SocketChannel.open(StandardProtocolFamily.UNIX)) {
      agent.connect(UnixDomainSocketAddress.of(System.getenv("SSH_AUTH_SOCK")));
      client.setSessionFactory(new Watching(client));
      client.setServerKeyVerifier((session, address, key) -> isKnown());
      client.setUserAuthFactories(List.of(byAgent(agent)));
      client.start();
      try (ClientSession session =
          client.connect(account, host, port).verify(Duration.ofSeconds(15)).getSession()) {
        session.waitFor(
            EnumSet.of(ClientSession.ClientSessionEvent.WAIT_AUTH), Duration.ofSeconds(15));
        if (!fault.equals("unbound")) {
          bind(agent, session.getSessionId());
        }
        session.auth().verify(Duration.ofSeconds(15));
        return exec(session);
      }
    }
  }

  private boolean isKnown() {
    try {
      String[] line = Files.readString(Path.of(options.get("UserKnownHostsFile"))).split("\\s+");
      return options.get("StrictHostKeyChecking").equals("yes")
          && line[0].equals(options.get("HostKeyAlias"))
          && WireKey.ofBlob(shown.get()[0]).base64().equals(line[2]);
    } catch (IOException e) {
      return false;
    }
  }

  private final class Watching extends SessionFactory {
    Watching(SshClient client) {
      super(client);
    }

    @Override
    protected ClientSessionImpl doCreateSession(IoSession line) throws Exception {
      return new ClientSessionImpl(getClient(), line) {
        @Override
        protected void handleKexMessage(int message, Buffer buffer) throws Exception {
          // The server's part of the exchange (RFC 4253, section 8; RFC 5656, section 4).
          if (message == 31 && shown.get() == null) {
            Buffer copy = new ByteArrayBuffer(buffer.array(), buffer.rpos(), buffer.available());
            byte[] key = copy.getBytes();
            copy.getBytes();
            shown.set(new byte[][] {key, copy.getBytes()});
          }
          super.handleKexMessage(message, buffer);
        }
      };
    }
  }

  private void bind(SocketChannel agent, byte[] session) throws IOException {
    Buffer request = new ByteArrayBuffer();
    request.putByte((byte) 27);
    request.putString("session-bind@openssh.com");
    request.putBytes(shown.get()[0]);
    request.putBytes(session);
    request.putBytes(shown.get()[1]);
    request.putBoolean(false);
    if (ask(agent, request)[0] != 6) {
      throw new IOException("the agent does not know this host key");
    }
  }

  private static byte[] onlyKey(SocketChannel agent) throws IOException {
    Buffer request = new ByteArrayBuffer();
    request.putByte((byte) 11);
    Buffer answer = new ByteArrayBuffer(ask(agent, request));
    answer.getUByte();
    if (answer.getInt() < 1) {
      throw new IOException("the agent holds no key");
    }
    return answer.getBytes();
  }

  private static UserAuthFactory byAgent(SocketChannel agent) {
    return new UserAuthFactory() {
      @Override
      public String getName() {
        return ByAgent.NAME;
      }

      @Override
      public UserAuth createUserAuth(ClientSession session) {
        return new ByAgent(agent);
      }
    };
  }

  /** The method of RFC 4252, section 7, with the agent's signature in the first request. */
  private static final class ByAgent extends AbstractUserAuth {
    static final String NAME = "publickey";
    private final SocketChannel agent;
    private byte[] key;

    ByAgent(SocketChannel agent) {
      super(NAME);
      this.agent = agent;
    }

    @Override
    protected boolean sendAuthDataRequest(ClientSession session, String service) throws Exception {
      if (key != null) {
        return false;
      }
      key = onlyKey(agent);
      Buffer signed = new ByteArrayBuffer();
      signed.putBytes(session.getSessionId());
      signed.putByte((byte) 50);
      request(signed, session.getUsername(), service);
      Buffer request = session.createBuffer((byte) 50);
      request(request, session.getUsername(), service);
      request.putBytes(sign(agent, key, signed.getCompactData()));
      session.writePacket(request);
      return true;
    }

    private void request(Buffer to, String account, String service) {
      to.putString(account);
      to.putString(service);
      to.putString(NAME);
      to.putBoolean(true);
      to.putString(WireKey.ofBlob(key).type());
      to.putBytes(key);
    }

    @Override
    protected boolean processAuthDataRequest(ClientSession session, String service, Buffer answer) {
      return false;
    }
  }

  private static byte[] sign(SocketChannel agent, byte[] key, byte[] data) throws IOException {
    Buffer request = new ByteArrayBuffer();
    request.putByte((byte) 13);
    request.putBytes(key);
    request.putBytes(data);
    request.putInt(0);
    Buffer answer = new ByteArrayBuffer(ask(agent, request));
    if (answer.getUByte() != 14) {
      throw new IOException("the agent refused to sign");
    }
    return answer.getBytes();
  }

  private static byte[] ask(SocketChannel agent, Buffer request) throws IOException {
    Buffer message = new ByteArrayBuffer();
    message.putBytes(request.getCompactData());
    OutputStream out = Channels.newOutputStream(agent);
    out.write(message.getCompactData());
    InputStream in = Channels.newInputStream(agent);
    byte[] length = in.readNBytes(4);
    if (length.length < 4) {
      throw new IOException("the agent closed the connection");
    }
    return in.readNBytes(ByteBuffer.wrap(length).getInt());
  }

  private int exec(ClientSession session) throws IOException {
    try (ChannelExec channel =
        session.createExecChannel(
            command.getBytes(java.nio.charset.StandardCharsets.ISO_8859_1), null, null)) {
      channel.setIn(System.in);
      channel.setOut(System.out);
      channel.setErr(System.err);
      channel.open().verify(Duration.ofSeconds(15));
      channel.waitFor(EnumSet.of(ClientChannelEvent.CLOSED), Duration.ZERO);
      Integer exit = channel.getExitStatus();
      return exit == null ? NOT_THERE : exit;
    }
  }
}
