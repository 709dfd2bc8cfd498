package zander.core.transfer.progress;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import zander.core.phrase.TransferPhrase;
import zander.core.transfer.progress.Progress.Problem;

class ProgressCounterTest {
  /** The list has an end; the number has none. */
  @Test
  void countsAllThatFailedAndKeepsTheFirst() {
    ProgressCounter counter = new ProgressCounter();
    for (int i = 0; i < 28_720; i++) {
      counter.counted(10);
      counter.problem(
          new Problem("station-" + i, TransferPhrase.DISK_FULL.of(), false, "stations", false));
      counter.skip(10);
    }
    counter.problem(new Problem("owner", TransferPhrase.NOT_KEPT.of(), true, "stations", false));
    Progress now = counter.now(false, null);
    assertThat(now.failed()).isEqualTo(28_720);
    assertThat(now.skipped() - now.same() - now.failed()).as("skipped by a choice").isZero();
    assertThat(now.problems()).hasSizeLessThan(28_720).first().matches(one -> !one.arrived());
  }
}
