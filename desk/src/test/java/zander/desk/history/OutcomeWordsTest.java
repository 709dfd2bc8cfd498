package zander.desk.history;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zander.core.change.save.SaveFailure;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;

/** No name of an enum reaches a person. */
class OutcomeWordsTest {
  @ParameterizedTest
  @EnumSource(RemoteFailure.Reason.class)
  void failuresOfRequests(RemoteFailure.Reason reason) {
    RemoteFailure failure =
        new RemoteFailure(
            reason, "rename", RemotePath.of("/srv/levels/a: B (c)"), "Failure\nagain", null);
    assertThat(OutcomeWords.of("failed: " + failure.getMessage()))
        .startsWith("failed to rename")
        .doesNotContain(reason.name());
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
  }
}
