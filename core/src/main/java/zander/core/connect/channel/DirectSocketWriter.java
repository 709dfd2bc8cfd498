package zander.core.connect.channel;

import java.io.IOException;
import java.net.SocketAddress;
import java.nio.ByteBuffer;
import java.nio.channels.AsynchronousSocketChannel;
import java.nio.channels.InterruptedByTimeoutException;
import java.time.Duration;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import org.apache.sshd.common.FactoryManager;
import org.apache.sshd.common.io.AbstractIoServiceFactoryFactory;
import org.apache.sshd.common.io.IoHandler;
import org.apache.sshd.common.io.IoServiceFactory;
import org.apache.sshd.common.io.nio2.Nio2CompletionHandler;
import org.apache.sshd.common.io.nio2.Nio2Service;
import org.apache.sshd.common.io.nio2.Nio2ServiceFactory;
import org.apache.sshd.common.io.nio2.Nio2Session;
import org.apache.sshd.core.CoreModuleProperties;

/**
 * The library's sockets, but for one thing: a write that the system takes at once is over at once.
 * The library has each of them told by another thread, which costs two changes of threads for every
 * packet and a seventh of the processor's time that sending a large file takes.
 */
public final class DirectSocketWriter extends AbstractIoServiceFactoryFactory {
  public DirectSocketWriter() {
    super(null);
  }

  @Override
  public IoServiceFactory create(FactoryManager manager) {
    return new Sockets(manager);
  }

  private static final class Sockets extends Nio2ServiceFactory {
    /** One thread for each line whose other end takes nothing at the moment. */
    private final ExecutorService waiting =
        Executors.newCachedThreadPool(
            task -> {
              Thread thread = new Thread(task, "line-write");
              thread.setDaemon(true);
              return thread;
            });

    Sockets(FactoryManager manager) {
      super(manager, ConnectionThreads.create(), ConnectionThreads.create());
    }

    @Override
    public Nio2Session createSession(
        Nio2Service service, IoHandler handler, AsynchronousSocketChannel socket, SocketAddress at)
        throws Exception {
      return new Line(service, getFactoryManager(), handler, socket, at, waiting);
    }

    @Override
    protected void doCloseImmediately() {
      waiting.shutdown();
      super.doCloseImmediately();
    }
  }

  private static final class Line extends Nio2Session {
    /** What waits is written by the end of what went before it: so many calls deep at most. */
    private static final int DEEPEST = 50;

    private final ExecutorService waiting;

    /** For the other end to take something; the library's own. */
    private final Duration patience;

    private final ThreadLocal<int[]> depth = ThreadLocal.withInitial(() -> new int[1]);

    Line(
        Nio2Service service,
        FactoryManager manager,
        IoHandler handler,
        AsynchronousSocketChannel socket,
        SocketAddress at,
        ExecutorService waiting)
        throws IOException {
      super(service, manager, handler, socket, at);
      this.waiting = waiting;
      this.patience = CoreModuleProperties.NIO2_MIN_WRITE_TIMEOUT.getRequired(manager);
    }

    @Override
    protected void doWriteCycle(ByteBuffer buffer, Nio2CompletionHandler<Integer, Object> end) {
      int[] deep = depth.get();
      if (deep[0] >= DEEPEST) {
        super.doWriteCycle(buffer, end);
        return;
      }
      // Without a handler the system's answer is here when the call returns, if there is one.
      Future<Integer> written = getSocket().write(buffer);
      if (!written.isDone()) {
        waiting.execute(() -> tell(written, end));
        return;
      }
      deep[0]++;
      try {
        tell(written, end);
      } finally {
        deep[0]--;
      }
    }

    private void tell(Future<Integer> written, Nio2CompletionHandler<Integer, Object> end) {
      Integer count;
      try {
        count = written.get(patience.toMillis(), TimeUnit.MILLISECONDS);
      } catch (ExecutionException e) {
        end.failed(e.getCause(), null);
        return;
      } catch (TimeoutException e) {
        end.failed(new InterruptedByTimeoutException(), null);
        return;
      } catch (InterruptedException e) {
        Thread.currentThread().interrupt();
        end.failed(e, null);
        return;
      }
      end.completed(count, null);
    }
  }
}
