package zander.core.files;

import java.io.IOException;
import java.util.ArrayDeque;
import java.util.Deque;
import org.apache.sshd.common.util.buffer.Buffer;
import zander.core.files.RemoteFailure.Reason;
import zander.core.rights.Mode;

/** A file written from its beginning, with several WRITE requests under way. For one thread. */
final class SftpWriter implements RemoteWriter {
  private static final int CHUNK = 32 * 1024;
  private static final int MOST_UNDER_WAY = 64;
  static final String FSYNC = "fsync@openssh.com";

  private final SftpFiles files;
  private final SftpWire wire;
  private final RemotePath path;
  private final byte[] handle;
  private final Deque<SftpWire.Sent> underWay = new ArrayDeque<>();
  private long at;
  private boolean closed;

  SftpWriter(SftpFiles files, SftpWire wire, RemotePath path, byte[] handle) {
    this.files = files;
    this.wire = wire;
    this.path = path;
    this.handle = handle;
  }

  @Override
  public void write(byte[] bytes, int offset, int length) throws IOException {
    for (int done = 0; done < length; ) {
      int count = Math.min(CHUNK, length - done);
      Buffer body = body();
      body.putLong(at);
      body.putBytes(bytes, offset + done, count);
      underWay.addLast(wire.send(SftpWire.WRITE, body, "write", path));
      at += count;
      done += count;
      awaitDownTo(MOST_UNDER_WAY);
    }
  }

  private void awaitDownTo(int count) throws IOException {
    while (underWay.size() > count) {
      try {
        wire.expectOk(underWay.removeFirst());
      } catch (RemoteFailure e) {
        throw withSpace(e);
      }
    }
  }

  /** Version 3 has no status for a full disk; a failed write with no room left is told as one. */
  private RemoteFailure withSpace(RemoteFailure e) {
    if (e.reason() != Reason.FAILED) {
      return e;
    }
    try {
      FileSpace space = files.space(path.parent());
      return space != null && space.free() < CHUNK
          ? new RemoteFailure(Reason.NO_SPACE, e.step(), path, space.free() + " bytes free", e)
          : e;
    } catch (IOException | RuntimeException unknown) {
      return e;
    }
  }

  @Override
  public void setOwner(int uid, int gid) throws IOException {
    Buffer body = body();
    SftpWire.putOwner(body, uid, gid);
    wire.expectOk(wire.send(SftpWire.FSETSTAT, body, "set owner", path));
  }

  @Override
  public void setMode(Mode mode) throws IOException {
    Buffer body = body();
    SftpWire.putMode(body, mode);
    wire.expectOk(wire.send(SftpWire.FSETSTAT, body, "set mode", path));
  }

  @Override
  public void setModeAndTime(Mode mode, long modified) throws IOException {
    Buffer body = body();
    SftpWire.putModeAndTimes(body, mode, modified, modified);
    wire.expectOk(wire.send(SftpWire.FSETSTAT, body, "set mode and time", path));
  }

  @Override
  public RemoteAttributes look() throws IOException {
    return wire.expectAttributes(wire.send(SftpWire.FSTAT, body(), "look at", path));
  }

  @Override
  public boolean finish() throws IOException {
    awaitDownTo(0);
    if (!wire.offers(FSYNC)) {
      return false;
    }
    try {
      wire.expectOk(wire.sendExtended(FSYNC, body(), "sync", path));
      return true;
    } catch (RemoteFailure e) {
      throw withSpace(e);
    }
  }

  private Buffer body() {
    Buffer body = SftpWire.body();
    body.putBytes(handle);
    return body;
  }

  @Override
  public void close() throws IOException {
    if (closed) {
      return;
    }
    closed = true;
    SftpWire.Sent close = wire.send(SftpWire.CLOSE, body(), "close", path);
    awaitDownTo(0);
    wire.expectOk(close);
  }
}
