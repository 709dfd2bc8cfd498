package zander.suite.window;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.List;
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
  /**
   * Milliseconds. The aim is 200, which all rows keep on a quiet machine; another build beside this
   * one makes the same work half as long again.
   */
  private static final long MOST = 300;

  @TempDir Path folder;

  @Test
  @Timeout(value = 400, unit = TimeUnit.SECONDS)
  void nothingKeepsTheWindowFromAnswering() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    List<WindowSizes.Row> rows = WindowSizes.of(folder);
    assertThat(rows).hasSizeGreaterThan(15);
    assertThat(rows).allMatch(row -> row.work() <= MOST);
  }
}
