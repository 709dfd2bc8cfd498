package zander.desk.history;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zander.core.change.save.SaveFailure;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;
import zander.core.phrase.JournalPhrase;

/** No name of an enum reaches a person. */
class OutcomeWordsTest {
  @ParameterizedTest
  @EnumSource(RemoteFailure.Reason.class)
  void failuresOfRequests(RemoteFailure.Reason reason) {
    RemoteFailure failure =
        new RemoteFailure(
            reason, FileStep.RENAME, RemotePath.of("/srv/levels/a: B (c)"), "Failure\nagain", null);
    assertThat(OutcomeWords.of("failed: " + failure.getMessage()))
        .startsWith("failed to rename")
        .doesNotContain(reason.name());
  }

  @Test
  void whatZanderFoundIsSaidInItsWords() {
    RemoteFailure failure =
        new RemoteFailure(
            RemoteFailure.Reason.FAILED,
            FileStep.WRITE,
            RemotePath.of("/srv/levels/a"),
            FilePhrase.ARRIVED_OF.of(2, 12),
            null);
    assertThat(OutcomeWords.of("failed: " + failure.getMessage()))
        .isEqualTo("failed to write: 2 of 12 bytes arrived");
  }

  @ParameterizedTest
  @EnumSource(SaveFailure.Reason.class)
  void failuresOfSaves(SaveFailure.Reason reason) {
    for (String about : new String[] {"", "save of /etc/levels/a b: "}) {
      assertThat(OutcomeWords.of("failed: " + about + reason + " at RIGHTS, server has OLD"))
          .startsWith("not saved: ")
          .endsWith("; the server has the version before")
          .doesNotContain(reason.name());
    }
  }

  @Test
  void whatIsInWordsAlreadyStays() {
    assertThat(OutcomeWords.of("failed: did not arrive")).isEqualTo("failed: did not arrive");
    assertThat(OutcomeWords.of("failed: " + JournalPhrase.NOT_ARRIVED.of()))
        .isEqualTo("failed: it did not arrive");
  }
}
