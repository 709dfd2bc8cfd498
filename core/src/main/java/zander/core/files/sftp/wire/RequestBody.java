package zander.core.files.sftp.wire;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import zander.core.files.RemotePath;
import zander.core.files.WireName;

/**
 * What a request says after its number, with the places where it names a path: the name that is
 * sent for one may be another (see {@link FolderHandles}).
 */
public final class RequestBody extends ByteArrayBuffer {
  /** A path from a place in the body on, as its length and its bytes. */
  private record Named(int at, RemotePath path) {}

  private final List<Named> named = new ArrayList<>(2);

  public RequestBody() {
    super(256, false);
  }

  public void putPath(RemotePath path) {
    named.add(new Named(wpos(), path));
    putBytes(WireName.bytes(path.wire()));
  }

  /** Appends another, without a length. */
  public void append(RequestBody other) {
    int shift = wpos();
    for (Named one : other.named) {
      named.add(new Named(one.at + shift, one.path));
    }
    putRawBytes(other.array(), other.rpos(), other.available());
  }

  public List<RemotePath> paths() {
    return named.stream().map(Named::path).toList();
  }

  /**
   * The same with other names.
   *
   * @param names gives the name to send, in wire form
   */
  public Buffer with(Function<RemotePath, String> names) {
    ByteArrayBuffer placed = new ByteArrayBuffer(available() + 64, false);
    int from = rpos();
    for (Named one : named) {
      placed.putRawBytes(array(), from, one.at - from);
      placed.putBytes(WireName.bytes(names.apply(one.path)));
      from = one.at + Integer.BYTES + WireName.bytes(one.path.wire()).length;
    }
    placed.putRawBytes(array(), from, wpos() - from);
    return placed;
  }
}
