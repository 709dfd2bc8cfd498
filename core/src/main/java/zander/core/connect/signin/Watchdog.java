package zander.core.connect.signin;

import java.io.Closeable;
import java.time.Duration;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import org.apache.sshd.client.session.ClientSession;

/**
 * Ends sign-ins whose server has gone silent, at whatever step, while nobody is being asked
 * anything. A person may think as long as they want; a server may not.
 */
public final class Watchdog implements Closeable {
  private final Duration patience;
  private final ScheduledExecutorService timer =
      Executors.newSingleThreadScheduledExecutor(
          task -> {
            Thread thread = new Thread(task, "sign-in-watch");
            thread.setDaemon(true);
            return thread;
          });

  public Watchdog(Duration patience) {
    this.patience = patience;
  }

  Duration patience() {
    return patience;
  }

  /** Watches until the returned task is cancelled. */
  public ScheduledFuture<?> watch(ClientSession session, SignInAttempt attempt) {
    long often = Math.max(20, patience.toMillis() / 20);
    return timer.scheduleWithFixedDelay(
        () -> {
          if (attempt.isStalled(patience)) {
            attempt.timedOut();
            session.close(true);
          }
        },
        often,
        often,
        TimeUnit.MILLISECONDS);
  }

  @Override
  public void close() {
    timer.shutdownNow();
  }
}
