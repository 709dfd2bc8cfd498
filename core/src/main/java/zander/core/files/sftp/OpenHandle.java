package zander.core.files.sftp;

import java.util.List;
import org.apache.sshd.common.util.buffer.Buffer;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;

/**
 * A file that is open on one channel. A large one may be open on several at once, because a server
 * lets only so much be under way on each.
 */
record OpenHandle(SftpWire wire, byte[] handle) {
  Buffer body() {
    Buffer body = SftpWire.body();
    body.putBytes(handle);
    return body;
  }

  /**
   * @param body of an OPEN request
   */
  static OpenHandle open(SftpWire wire, Buffer body, RemotePath file) throws RemoteFailure {
    return new OpenHandle(wire, wire.expectHandle(wire.send(SftpWire.OPEN, body, "open", file)));
  }

  /** One that cannot be opened is done without: the file is open already. */
  static void openMore(List<SftpWire> wires, RemotePath file, int how, List<OpenHandle> lanes) {
    for (SftpWire wire : wires) {
      Buffer body = SftpWire.body(file);
      body.putInt(how);
      SftpWire.putNoAttributes(body);
      try {
        lanes.add(open(wire, body, file));
      } catch (RemoteFailure e) {
        return;
      }
    }
  }
}
