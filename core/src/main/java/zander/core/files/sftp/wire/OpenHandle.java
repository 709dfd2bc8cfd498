package zander.core.files.sftp.wire;

import java.util.List;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;

/**
 * A file that is open on one channel. A large one may be open on several at once, because a server
 * lets only so much be under way on each.
 */
public record OpenHandle(SftpWire wire, byte[] handle) {
  public RequestBody body() {
    RequestBody body = SftpWire.body();
    body.putBytes(handle);
    return body;
  }

  /**
   * @param how the flags of SSH_FXP_OPEN
   */
  public static OpenHandle open(SftpWire wire, RemotePath file, int how) throws RemoteFailure {
    RequestBody body = SftpWire.body();
    body.putInt(how);
    WireAttributes.putNone(body);
    return new OpenHandle(wire, wire.open(file, body));
  }

  /**
   * One that cannot be opened is done without: the file is open already. Where others can turn its
   * path, none is: the second handle might be of another file.
   */
  public static void openMore(
      List<SftpWire> wires, RemotePath file, int how, List<OpenHandle> lanes) throws RemoteFailure {
    if (wires.isEmpty() || wires.get(0).handles().isOpen(file)) {
      return;
    }
    for (SftpWire wire : wires) {
      try {
        lanes.add(open(wire, file, how));
      } catch (RemoteFailure e) {
        return;
      }
    }
  }
}
