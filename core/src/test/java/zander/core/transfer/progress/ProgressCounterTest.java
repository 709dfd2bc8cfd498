package zander.core.transfer.progress;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

class ProgressCounterTest {
  /** The list has an end; the number has none. */
  @Test
  void countsAllThatFailedAndKeepsTheFirst() {
    ProgressCounter tally = new ProgressCounter();
    for (int i = 0; i < 28_720; i++) {
      tally.counted(10);
      tally.problem("station-" + i, "the server's disk is full", false, "stations");
      tally.skip(10);
    }
    tally.problem("owner", "owner could not be kept", true, "stations");
    Progress now = tally.now(false, "");
    assertThat(now.failed()).isEqualTo(28_720);
    assertThat(now.skipped() - now.same() - now.failed()).as("skipped by a choice").isZero();
    assertThat(now.problems()).hasSizeLessThan(28_720).first().matches(one -> !one.arrived());
  }
}
