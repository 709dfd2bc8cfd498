package zander.core.find;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import zander.core.work.Cancellation;

/**
 * An expression that would look at a line for longer than the world stands: a group that is named
 * again, as without it the engine remembers where it has been in vain.
 */
@Timeout(value = 60, unit = TimeUnit.SECONDS)
class EndlessExpressionTest {
  private static final SearchText ENDLESS = new SearchText("(a|aa)+\\1;", true, true);
  private static final String LINE = "a".repeat(200);

  @Test
  void endsWithTheWish() {
    Cancellation stop = new Cancellation();
    Thread wisher = new Thread(stop::stop);
    wisher.start();
    assertThatThrownBy(() -> TextPlaces.isIn(LINE, ENDLESS.pattern(), stop))
        .isInstanceOf(CancellationException.class);
  }

  @Test
  void endsByItselfWhereNobodyMayWait() {
    assertThat(TextPlaces.atOnce("aa;\n" + LINE, ENDLESS, 10)).hasSize(1);
  }
}
