package zander.core.files.sftp.channel;

import java.io.IOException;
import java.util.concurrent.atomic.AtomicInteger;
import org.apache.sshd.common.util.buffer.Buffer;
import org.apache.sshd.common.util.buffer.ByteArrayBuffer;
import zander.core.files.sftp.channel.SftpChannel.Asking;
import zander.core.files.sftp.channel.SftpChannel.Waiting;

/** Requests that a thread keeps back while it makes many, to send them together. */
final class KeptRequests {
  private static final int ROOM = 34 * 1024;

  /** Sends what was kept back. */
  interface Out {
    void send(Buffer all) throws IOException;
  }

  /**
   * Those of one thread.
   *
   * @param most bytes that are kept back
   */
  private record Kept(ByteArrayBuffer all, int most) {}

  private final Out out;
  private final ThreadLocal<Kept> own = new ThreadLocal<>();
  private final AtomicInteger keeping = new AtomicInteger();

  KeptRequests(Out out) {
    this.out = out;
  }

  <E extends Exception> void together(Asking<E> asking, int most) throws IOException, E {
    Kept kept = new Kept(new ByteArrayBuffer(ROOM, false), most);
    own.set(kept);
    try {
      try {
        asking.run();
      } finally {
        own.remove();
      }
      send(kept);
    } finally {
      if (kept.all.available() > 0) {
        keeping.decrementAndGet();
      }
    }
  }

  private void send(Kept kept) throws IOException {
    if (kept.all.available() > 0) {
      out.send(kept.all);
      kept.all.clear(false);
      keeping.decrementAndGet();
    }
  }

  <T, E extends Exception> T apart(Waiting<T, E> work) throws IOException, E {
    Kept kept = own.get();
    if (kept == null) {
      return work.run();
    }
    send(kept);
    own.remove();
    try {
      return work.run();
    } finally {
      own.set(kept);
    }
  }

  /** Whether any thread has some that have not gone out. */
  boolean isAny() {
    return keeping.get() > 0;
  }

  /** Whether it is kept back; otherwise it is to be sent at once. */
  boolean put(Buffer message, byte[] data, int offset, int length) throws IOException {
    Kept kept = own.get();
    if (kept == null) {
      return false;
    }
    if (kept.all.available() == 0) {
      keeping.incrementAndGet();
    }
    kept.all.putRawBytes(message.array(), message.rpos(), message.available());
    kept.all.putRawBytes(data, offset, length);
    if (kept.all.available() >= kept.most) {
      send(kept);
    }
    return true;
  }
}
