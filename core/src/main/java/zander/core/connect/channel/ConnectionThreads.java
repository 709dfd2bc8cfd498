package zander.core.connect.channel;

import java.util.concurrent.SynchronousQueue;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.apache.sshd.common.util.threads.CloseableExecutorService;
import org.apache.sshd.common.util.threads.SshThreadPoolExecutor;
import zander.core.work.BlockingCalls;

/**
 * The threads that read connections. As many as are needed: somebody who is asked during a sign-in
 * holds one of them, and must not keep other servers' answers from being read.
 */
final class ConnectionThreads {
  private static final AtomicInteger NUMBER = new AtomicInteger();

  private ConnectionThreads() {}

  /** One that must not wait for the network: what it waits for, only it could read. */
  private static final class Reader extends Thread implements BlockingCalls.NeverWaits {
    Reader(Runnable task) {
      super(task, "line-read-" + NUMBER.incrementAndGet());
      setDaemon(true);
    }
  }

  static CloseableExecutorService create() {
    return new SshThreadPoolExecutor(
        0, Integer.MAX_VALUE, 60, TimeUnit.SECONDS, new SynchronousQueue<>(), Reader::new);
  }
}
