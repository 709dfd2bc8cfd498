package zander.core.connect.report;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import org.junit.jupiter.api.Test;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.Phrase;
import zander.core.phrase.SignInPhrase;

class FailureReasonsTest {
  private final Throwable closed =
      new IOException(
          "wrapped",
          new ExplainedException(SignInPhrase.CLOSED.of(), new IllegalStateException("library")));

  @Test
  void aConnectionThatWasClosedIsKnownByItsTypeAtEachStep() {
    assertThat(FailureReasons.afterSignIn(closed, "")).isEqualTo(Reason.CLOSED_BY_SERVER);
    assertThat(FailureReasons.beforeSignIn(SignInStep.GREETING, closed, ""))
        .isEqualTo(Reason.CLOSED_BY_SERVER);
    assertThat(FailureReasons.afterSignIn(new IOException("other"), "other"))
        .isEqualTo(Reason.NO_FILE_SERVICE);
  }

  @Test
  void whatZanderFoundIsToldBeforeWhatCausedIt() {
    assertThat(FailureReasons.phrase(closed)).isEqualTo(SignInPhrase.CLOSED.of());
    assertThat(FailureReasons.phrase(new IOException("a", new IOException("refused"))))
        .isEqualTo(Phrase.quoted("refused"));
  }
}
