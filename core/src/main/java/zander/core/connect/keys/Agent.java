package zander.core.connect.keys;

import java.io.IOException;
import java.net.StandardProtocolFamily;
import java.net.UnixDomainSocketAddress;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.channels.SocketChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.SignInPhrase;
import zander.core.trust.WireKey;
import zander.core.work.BlockingCalls;

/**
 * A running key agent behind a Unix socket (draft-miller-ssh-agent): what keys it holds, and
 * signatures by them. A connection for each question, as agents expect. Safe for several threads.
 */
public final class Agent {
  private static final int FAILURE = 5;
  private static final int REQUEST_IDENTITIES = 11;
  private static final int IDENTITIES = 12;
  private static final int SIGN = 13;
  private static final int SIGNATURE = 14;
  private static final int RSA_SHA2_512 = 4;
  private static final int LONGEST = 256 * 1024;

  private final Path socket;

  public Agent(Path socket) {
    this.socket = socket;
  }

  /** A key in the agent, under the comment it was added with. */
  public record Held(WireKey key, String comment) {}

  /** The agent that {@code SSH_AUTH_SOCK} names; empty when there is none. */
  public static Optional<Agent> running() {
    String named = System.getenv("SSH_AUTH_SOCK");
    return named == null || named.isBlank() || !Files.exists(Path.of(named))
        ? Optional.empty()
        : Optional.of(new Agent(Path.of(named)));
  }

  /** Waits for the agent. */
  public List<Held> keys() throws IOException {
    ByteBuffer answer = ask(ByteBuffer.allocate(1).put((byte) REQUEST_IDENTITIES), IDENTITIES);
    try {
      List<Held> keys = new ArrayList<>();
      for (int left = answer.getInt(); left > 0; left--) {
        byte[] blob = string(answer);
        keys.add(
            new Held(WireKey.ofBlob(blob), new String(string(answer), StandardCharsets.UTF_8)));
      }
      return keys;
    } catch (BufferUnderflowException | IndexOutOfBoundsException e) {
      throw new ExplainedException(SignInPhrase.AGENT_UNREADABLE.of(), e);
    }
  }

  /**
   * Signs with one of its keys; waits, perhaps for the person, when the agent asks.
   *
   * @return the signature in wire form, its algorithm's name first
   */
  public byte[] sign(WireKey key, byte[] data) throws IOException {
    byte[] blob = key.blob();
    ByteBuffer body = ByteBuffer.allocate(13 + blob.length + data.length);
    body.put((byte) SIGN).putInt(blob.length).put(blob).putInt(data.length).put(data);
    body.putInt(key.type().contains("rsa") ? RSA_SHA2_512 : 0);
    return string(ask(body, SIGNATURE));
  }

  private ByteBuffer ask(ByteBuffer body, int expected) throws IOException {
    BlockingCalls.check("asking the agent");
    try (SocketChannel channel = SocketChannel.open(StandardProtocolFamily.UNIX)) {
      channel.connect(UnixDomainSocketAddress.of(socket));
      ByteBuffer request = ByteBuffer.allocate(4 + body.position());
      request.putInt(body.position()).put(body.flip()).flip();
      while (request.hasRemaining()) {
        channel.write(request);
      }
      int length = read(channel, 4).getInt();
      if (length < 1 || length > LONGEST) {
        throw new ExplainedException(SignInPhrase.AGENT_UNREADABLE.of());
      }
      ByteBuffer answer = read(channel, length);
      int type = answer.get();
      if (type != expected) {
        throw new ExplainedException(
            (type == FAILURE ? SignInPhrase.AGENT_REFUSED : SignInPhrase.AGENT_UNREADABLE).of());
      }
      return answer;
    }
  }

  private static ByteBuffer read(SocketChannel channel, int length) throws IOException {
    ByteBuffer buffer = ByteBuffer.allocate(length);
    while (buffer.hasRemaining()) {
      if (channel.read(buffer) < 0) {
        throw new ExplainedException(SignInPhrase.AGENT_ENDED.of());
      }
    }
    return buffer.flip();
  }

  private static byte[] string(ByteBuffer from) throws IOException {
    int length = from.getInt();
    if (length < 0 || length > from.remaining()) {
      throw new ExplainedException(SignInPhrase.AGENT_UNREADABLE.of());
    }
    byte[] bytes = new byte[length];
    from.get(bytes);
    return bytes;
  }
}
