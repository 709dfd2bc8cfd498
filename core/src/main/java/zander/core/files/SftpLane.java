package zander.core.files;

import org.apache.sshd.common.util.buffer.Buffer;

/**
 * A file that is open on one channel. A large one may be open on several at once, because a server
 * lets only so much be under way on each.
 */
record SftpLane(SftpWire wire, byte[] handle) {
  Buffer body() {
    Buffer body = SftpWire.body();
    body.putBytes(handle);
    return body;
  }
}
