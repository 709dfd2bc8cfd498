package zander.suite.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.suite.SystemSshd;

/**
 * At the sizes of life the interface thread has no work that a person would wait for. Measured by
 * the processor time of that thread, which other programs do not change.
 */
class WindowSizesTest {
  @TempDir Path folder;

  @Test
  @Timeout(value = 400, unit = TimeUnit.SECONDS)
  void nothingKeepsTheWindowFromAnswering() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    WindowSizes.Measured measured = WindowSizes.of(folder);
    assertThat(measured.rows()).hasSizeGreaterThan(15);
    assertThat(measured.rows()).allMatch(row -> row.work() <= measured.patience());
  }
}
