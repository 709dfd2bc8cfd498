package zander.core.files;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.List;
import java.util.function.Consumer;
import org.apache.sshd.common.util.buffer.Buffer;
import zander.core.files.RemoteFailure.Reason;

/**
 * Reads one folder. READDIR requests are kept under way, twice as many after each answer, because a
 * server gives about a hundred names in each and the line's delay would be paid for every one.
 */
final class SftpListing {
  private static final int MOST_UNDER_WAY = 64;

  /** A folder that never ends must not fill the memory. */
  private static final int MOST_ENTRIES = 5_000_000;

  /** An entry before links are followed; {@code longLine} is the server's {@code ls -l} line. */
  record Raw(RemotePath path, RemoteAttributes attributes, String longLine) {}

  private final SftpWire wire;
  private final RemotePath folder;
  private final SftpWire.Sent opening;

  private SftpListing(SftpWire wire, RemotePath folder, SftpWire.Sent opening) {
    this.wire = wire;
    this.folder = folder;
    this.opening = opening;
  }

  static SftpListing of(SftpWire wire, RemotePath folder) throws RemoteFailure {
    return new SftpListing(
        wire, folder, wire.send(SftpWire.OPENDIR, SftpWire.body(folder), "open folder", folder));
  }

  /**
   * Continues one whose OPENDIR has been sent.
   *
   * @param folder where its names are, which may have become known only since
   */
  static SftpListing opened(SftpWire wire, RemotePath folder, SftpWire.Sent opening) {
    return new SftpListing(wire, folder, opening);
  }

  List<Raw> read(Consumer<List<Raw>> portion) throws IOException {
    byte[] handle = wire.expectHandle(opening);
    Deque<SftpWire.Sent> underWay = new ArrayDeque<>();
    List<Raw> all = new ArrayList<>();
    try {
      int allowed = 4;
      boolean ended = false;
      while (!ended) {
        while (underWay.size() < allowed) {
          underWay.addLast(wire.send(SftpWire.READDIR, handleBody(handle), "list folder", folder));
        }
        List<Raw> names = wire.expectNames(underWay.removeFirst(), this::names);
        if (names == null) {
          ended = true;
        } else {
          all.addAll(names);
          portion.accept(names);
          allowed = Math.min(MOST_UNDER_WAY, allowed * 2);
        }
        if (all.size() > MOST_ENTRIES) {
          throw new RemoteFailure(
              Reason.BAD_ANSWER, "list folder", folder, "the folder does not end", null);
        }
      }
    } finally {
      close(handle, underWay);
    }
    return all;
  }

  private void close(byte[] handle, Deque<SftpWire.Sent> underWay) throws RemoteFailure {
    SftpWire.Sent close = wire.send(SftpWire.CLOSE, handleBody(handle), "close", folder);
    for (SftpWire.Sent left : underWay) {
      wire.expectNames(left, body -> true);
    }
    wire.expectOk(close);
  }

  private static Buffer handleBody(byte[] handle) {
    Buffer body = SftpWire.body();
    body.putBytes(handle);
    return body;
  }

  private List<Raw> names(Buffer body) {
    int count = body.getInt();
    List<Raw> names = new ArrayList<>();
    for (int i = 0; i < count; i++) {
      String name = WireName.fromBytes(body.getBytes());
      String longLine = WireName.fromBytes(body.getBytes());
      RemoteAttributes attributes = SftpWire.attributes(body);
      // "." and ".." are expected here; any other unsafe name is a lie that must lead nowhere.
      if (WireName.isSafe(name)) {
        names.add(new Raw(folder.child(name), attributes, longLine));
      }
    }
    return names;
  }
}
