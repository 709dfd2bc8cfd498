package zander.suite.window;

import java.lang.management.ManagementFactory;
import java.util.concurrent.TimeUnit;

/** The time that this program has used of all processors, in nanoseconds. */
final class ProcessorTime {
  private ProcessorTime() {}

  static long now() {
    return ((com.sun.management.OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean())
        .getProcessCpuTime();
  }

  /** Until what was asked for is laid out and drawn, or ten seconds. */
  static void awaitIdle() throws InterruptedException {
    for (int i = 0; i < 20; i++) {
      long before = now();
      TimeUnit.MILLISECONDS.sleep(500);
      if (now() - before < 150_000_000) {
        return;
      }
    }
  }
}
