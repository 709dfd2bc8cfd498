package zander.desk.term;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Future;
import org.junit.jupiter.api.Test;

class BlinkingTest {
  private final List<CompletableFuture<Void>> waiting = new ArrayList<>();
  private final List<Boolean> seen = new ArrayList<>();
  private final Blinking blinking = new Blinking(this::later, this::turned);

  private Future<?> later(Duration pause, Runnable run) {
    CompletableFuture<Void> next = new CompletableFuture<>();
    next.thenRun(run);
    waiting.add(next);
    return next;
  }

  private void turned() {
    seen.add(!blinking.isDark());
    blinking.goOn(true);
  }

  private boolean tick() {
    CompletableFuture<Void> next = waiting.isEmpty() ? null : waiting.remove(0);
    return next != null && next.complete(null);
  }

  @Test
  void itComesAndGoesForAWhileAndThenStays() {
    blinking.begin();
    blinking.goOn(true);
    blinking.goOn(true);
    assertThat(waiting).as("one at a time").hasSize(1);
    while (tick()) {
      assertThat(seen).hasSizeLessThan(100);
    }
    assertThat(seen).startsWith(false, true, false).endsWith(false, true);
    assertThat(blinking.isDark()).isFalse();
  }

  @Test
  void aChangeIsSeenAtOnce() {
    blinking.begin();
    blinking.goOn(true);
    tick();
    assertThat(blinking.isDark()).isTrue();
    blinking.begin();
    assertThat(blinking.isDark()).isFalse();
    assertThat(tick()).as("the turn that was due").isFalse();
  }

  @Test
  void nothingWaitsWhereNothingBlinks() {
    blinking.begin();
    blinking.goOn(true);
    tick();
    blinking.goOn(false);
    assertThat(blinking.isDark()).isFalse();
    assertThat(tick()).isFalse();
  }
}
