package zander.suite;

import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;

/**
 * A server that speaks the first words of SSH by hand (RFC 4253, sections 4 to 7), so that it can
 * say what no server should.
 */
final class RawServer implements AutoCloseable {
  static final int IGNORE = 2;
  static final int KEXINIT = 20;
  private static final int LISTS = 10;
  private static final int COOKIE = 16;

  /** What it does with one connection. */
  interface Saying {
    void to(Line line) throws IOException;
  }

  private final ServerSocket listening;
  private final Thread accepting;
  private final List<Socket> sockets = new CopyOnWriteArrayList<>();

  RawServer(Saying saying) throws IOException {
    listening = new ServerSocket(0, 5, InetAddress.getLoopbackAddress());
    accepting = new Thread(() -> accept(saying), "raw-server");
    accepting.setDaemon(true);
    accepting.start();
  }

  private void accept(Saying saying) {
    while (!listening.isClosed()) {
      try {
        Socket socket = listening.accept();
        sockets.add(socket);
        saying.to(new Line(socket));
      } catch (IOException e) {
        // The other side has hung up, as it should.
      }
    }
  }

  int port() {
    return listening.getLocalPort();
  }

  @Override
  public void close() throws IOException {
    listening.close();
    for (Socket socket : sockets) {
      socket.close();
    }
  }

  /** One connection, before anything is sealed. */
  static final class Line {
    private final DataInputStream in;
    private final DataOutputStream out;

    Line(Socket socket) throws IOException {
      in = new DataInputStream(socket.getInputStream());
      out = new DataOutputStream(socket.getOutputStream());
    }

    void greet() throws IOException {
      raw("SSH-2.0-Riverside\r\n".getBytes(StandardCharsets.US_ASCII));
      while (in.readByte() != '\n') {
        // The client's own greeting is not looked at.
      }
    }

    void raw(byte[] bytes) throws IOException {
      out.write(bytes);
      out.flush();
    }

    void packet(byte[] payload) throws IOException {
      int padding = 8 - (payload.length + 5) % 8;
      padding += padding < 4 ? 8 : 0;
      out.writeInt(payload.length + padding + 1);
      out.writeByte(padding);
      out.write(payload);
      out.write(new byte[padding]);
      out.flush();
    }

    byte[] packet() throws IOException {
      int length = in.readInt();
      int padding = in.readUnsignedByte();
      byte[] rest = in.readNBytes(length - 1);
      return java.util.Arrays.copyOf(rest, rest.length - padding);
    }

    void hangUp() throws IOException {
      out.close();
    }

    /** Waits until the other side hangs up. */
    void drain() throws IOException {
      in.transferTo(java.io.OutputStream.nullOutputStream());
    }
  }

  /** The ten lists of names of a KEXINIT, in its order (RFC 4253, section 7.1). */
  static List<List<String>> lists(byte[] kexInit) throws IOException {
    DataInputStream in = new DataInputStream(new java.io.ByteArrayInputStream(kexInit));
    in.skipNBytes(1 + COOKIE);
    List<List<String>> lists = new ArrayList<>();
    for (int i = 0; i < LISTS; i++) {
      String names = new String(in.readNBytes(in.readInt()), StandardCharsets.US_ASCII);
      lists.add(names.isEmpty() ? List.of() : List.of(names.split(",")));
    }
    return lists;
  }

  static byte[] kexInit(List<List<String>> lists) throws IOException {
    ByteArrayOutputStream bytes = new ByteArrayOutputStream();
    DataOutputStream out = new DataOutputStream(bytes);
    out.writeByte(KEXINIT);
    out.write(new byte[COOKIE]);
    for (List<String> names : lists) {
      byte[] joined = String.join(",", names).getBytes(StandardCharsets.US_ASCII);
      out.writeInt(joined.length);
      out.write(joined);
    }
    out.writeByte(0);
    out.writeInt(0);
    return bytes.toByteArray();
  }
}
