package zander.standin.server;

import java.io.Closeable;
import java.io.IOException;
import java.net.StandardProtocolFamily;
import java.net.UnixDomainSocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.ServerSocketChannel;
import java.nio.channels.SocketChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyPair;
import org.apache.sshd.agent.common.AbstractAgentClient;
import org.apache.sshd.agent.local.AgentImpl;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;

/** A key agent behind a Unix socket, holding made-up keys: the library's own, put on a socket. */
public final class StandinAgent implements Closeable {
  private final Path socket;
  private final ServerSocketChannel listener;
  private final AgentImpl keys = new AgentImpl();

  public StandinAgent(Path socket) throws IOException {
    this.socket = socket;
    listener = ServerSocketChannel.open(StandardProtocolFamily.UNIX);
    listener.bind(UnixDomainSocketAddress.of(socket));
    Thread thread = new Thread(this::serve, "standin-agent");
    thread.setDaemon(true);
    thread.start();
  }

  public Path socket() {
    return socket;
  }

  public void add(KeyPair pair, String comment) throws IOException {
    keys.addIdentity(pair, comment);
  }

  public void removeAll() throws IOException {
    keys.removeAllIdentities();
  }

  private void serve() {
    while (listener.isOpen()) {
      try (SocketChannel client = listener.accept()) {
        Conversation conversation = new Conversation(client);
        ByteBuffer part = ByteBuffer.allocate(8192);
        while (client.read(part.clear()) >= 0) {
          conversation.messageReceived(new ByteArrayBuffer(part.array(), 0, part.position()));
        }
      } catch (IOException e) {
        // That client has gone; the next may come.
      }
    }
  }

  private final class Conversation extends AbstractAgentClient {
    private final SocketChannel client;

    Conversation(SocketChannel client) {
      super(keys);
      this.client = client;
    }

    @Override
    protected void reply(Buffer answer) throws IOException {
      ByteBuffer bytes = ByteBuffer.wrap(answer.getCompactData());
      while (bytes.hasRemaining()) {
        client.write(bytes);
      }
    }
  }

  @Override
  public void close() throws IOException {
    listener.close();
    Files.deleteIfExists(socket);
  }
}
