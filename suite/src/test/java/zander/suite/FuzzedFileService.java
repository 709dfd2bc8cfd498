package zander.suite;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.signin.SignInMethods;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.trust.KnownHosts;

/**
 * A file service whose answers are the input: its first byte says what is asked, and then each
 * answer is a type, a length and so many bytes, again and again. One for all inputs, because
 * signing in takes longer than asking.
 */
final class FuzzedFileService {
  private static final RemotePath FILE = RemotePath.of("/home/warden/level.txt");
  private static final int MOST_ANSWERS = 300;
  private static FuzzedFileService shared;

  private final LyingServer server;
  private final Connector connector;
  private Connection connection;

  private FuzzedFileService() throws IOException {
    server = new LyingServer();
    Path known = Files.createTempFile("known", "hosts");
    Files.delete(known);
    connector =
        new Connector(
            new KnownHosts(known),
            address ->
                List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), address.port())),
            null,
            Duration.ofSeconds(20));
  }

  static synchronized FuzzedFileService shared() throws IOException {
    if (shared == null) {
      shared = new FuzzedFileService();
    }
    return shared;
  }

  /** What the answers of a listing, of a look and of a failure are. */
  static List<byte[]> seeds() {
    try {
      ByteArrayOutputStream bytes = new ByteArrayOutputStream();
      DataOutputStream out = new DataOutputStream(bytes);
      out.writeInt(1);
      name(out, "level.txt");
      name(out, "-rw-r--r-- 1 warden web 5 Nov 1 10:00 level.txt");
      out.writeInt(0xd);
      out.writeLong(5);
      out.writeInt(0100644);
      out.writeInt(7);
      out.writeInt(8);
      byte[] named = bytes.toByteArray();
      byte[] handle = {0, 0, 0, 1, 'h'};
      byte[] end = {0, 0, 0, 1, 0, 0, 0, 0, 0, 0, 0, 0};
      byte[] attributes = Arrays.copyOfRange(named, named.length - 24, named.length);
      return List.of(
          seed(0, LyingServer.HANDLE, handle, LyingServer.NAME, named, LyingServer.STATUS, end),
          seed(1, LyingServer.ATTRS, attributes),
          seed(2, LyingServer.NAME, named),
          seed(3, LyingServer.ATTRS, attributes, LyingServer.HANDLE, handle, LyingServer.DATA, end),
          seed(4, LyingServer.EXTENDED_REPLY, new byte[88]));
    } catch (IOException e) {
      throw new UncheckedIOException(e);
    }
  }

  private static void name(DataOutputStream out, String name) throws IOException {
    byte[] bytes = name.getBytes(StandardCharsets.UTF_8);
    out.writeInt(bytes.length);
    out.write(bytes);
  }

  private static byte[] seed(int asking, Object... answers) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    bytes.write(asking);
    for (int i = 0; i < answers.length; i += 2) {
      byte[] body = (byte[]) answers[i + 1];
      bytes.write((int) answers[i]);
      bytes.write(body.length);
      bytes.write(body);
    }
    return bytes.toByteArray();
  }

  void answer(byte[] input) throws IOException {
    if (input.length < 3) {
      return;
    }
    AtomicInteger at = new AtomicInteger(1);
    AtomicInteger answers = new AtomicInteger();
    server.beHonest();
    if (connection == null || !connection.isOpen()) {
      connection =
          connector.open(
              new ServerAddress("warden", "localhost", server.port()),
              SignInMethods.byPassword(),
              TestPrompts.withPassword("heron"));
    }
    server.lieTo(
        LyingServer.ANY,
        (id, out) -> {
          if (answers.incrementAndGet() > MOST_ANSWERS) {
            throw new IOException("asked without end");
          }
          send(input, at, id, out);
        });
    try {
      ask(input[0] & 7);
    } catch (RemoteFailure e) {
      // It says so; a service that was given up is opened again.
      if (e.reason() == RemoteFailure.Reason.LINE_LOST) {
        connection.close();
      }
    }
  }

  private static void send(byte[] input, AtomicInteger at, int id, DataOutputStream out)
      throws IOException {
    int from = at.get() + 2 > input.length ? 1 : at.get();
    int type = input[from] & 0xff;
    int length = Math.min(input[from + 1] & 0xff, input.length - from - 2);
    at.set(from + 2 + length);
    out.writeInt(5 + length);
    out.writeByte(type);
    out.writeInt(id);
    out.write(input, from + 2, length);
  }

  private void ask(int what) throws IOException {
    switch (what) {
      case 0 -> connection.files().list(FILE.parent(), portion -> {});
      case 1 -> connection.files().entry(FILE);
      case 2 -> connection.files().readLink(FILE);
      case 3 -> connection.files().readAll(FILE, 1 << 16);
      case 4 -> connection.files().space(FILE);
      case 5 -> connection.files().realPath(".");
      default -> connection.files().lookAll(List.of(FILE, FILE.parent()));
    }
  }
}
