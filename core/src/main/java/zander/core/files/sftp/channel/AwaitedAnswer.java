package zander.core.files.sftp.channel;

import java.io.IOException;
import java.time.Duration;
import org.apache.sshd.common.util.buffer.Buffer;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.ExplainedException;

/** One answer and the thread that waits for it. */
final class AwaitedAnswer {
  private @Nullable Buffer message;
  private @Nullable IOException failure;

  synchronized void come(Buffer whole) {
    message = whole;
    notifyAll();
  }

  synchronized boolean isThere() {
    return message != null;
  }

  synchronized void fail(IOException why) {
    if (message == null) {
      failure = why;
      notifyAll();
    }
  }

  synchronized @Nullable Buffer await(Duration patience) throws IOException {
    long end = System.nanoTime() + patience.toNanos();
    try {
      while (message == null && failure == null) {
        long left = (end - System.nanoTime()) / 1_000_000;
        if (left <= 0) {
          return null;
        }
        wait(left);
      }
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IOException("interrupted", e);
    }
    if (failure != null) {
      throw failure instanceof ExplainedException known
          ? new ExplainedException(known.phrase(), known)
          : new IOException(failure.getMessage(), failure);
    }
    return message;
  }
}
