package zander.desk.reach;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import org.junit.jupiter.api.Test;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.report.SignInNote;
import zander.core.connect.report.SignInNote.Kind;
import zander.core.connect.report.SignInStep;
import zander.core.phrase.InputPhrase;
import zander.core.phrase.InvalidInput;
import zander.core.phrase.Phrase;

class SignInModelTest {
  private static final ServerAddress GATE = ServerAddress.parse("warden@gate.example");
  private static final ServerAddress STORE = ServerAddress.parse("warden@store.example");

  private final SignInModel model = new SignInModel("store");

  private void note(ServerAddress hop, SignInStep step, Kind kind, String fact, int at) {
    model.note(new SignInNote(hop, step, kind, Phrase.quoted(fact), Duration.ofMillis(at)));
  }

  @Test
  void stepsStandInTheirOrderWithTheirTimes() {
    note(GATE, SignInStep.NAME, Kind.BEGUN, "", 0);
    note(GATE, SignInStep.NAME, Kind.FOUND, "192.0.2.7", 3);
    note(GATE, SignInStep.NAME, Kind.DONE, "", 4);
    note(GATE, SignInStep.PORT, Kind.BEGUN, "", 4);
    note(GATE, SignInStep.PORT, Kind.OFFERED, "192.0.2.7 port 22", 5);
    note(GATE, SignInStep.PORT, Kind.DONE, "", 20);
    note(STORE, SignInStep.NAME, Kind.BEGUN, "", 21);
    assertThat(model.rows())
        .extracting(row -> row.hop().host() + " " + row.step())
        .containsExactly("gate.example NAME", "gate.example PORT", "store.example NAME");
    assertThat(model.rows().get(1).took()).isEqualTo(Duration.ofMillis(16));
    assertThat(model.rows().get(2).mark()).isEqualTo(SignInModel.Mark.UNDER_WAY);
    assertThat(model.isOver()).isFalse();
  }

  @Test
  void theReportSaysWhatHappenedWhere() {
    note(GATE, SignInStep.SIGN_IN, Kind.BEGUN, "", 0);
    note(GATE, SignInStep.SIGN_IN, Kind.OFFERED, "warden ed25519 SHA256:abc", 2);
    note(GATE, SignInStep.SIGN_IN, Kind.REFUSED, "warden", 9);
    note(GATE, SignInStep.SIGN_IN, Kind.OFFERED, "password", 10);
    note(GATE, SignInStep.SIGN_IN, Kind.REFUSED, "", 12);
    note(GATE, SignInStep.SIGN_IN, Kind.FAILED, "", 12);
    model.failed(new InvalidInput(InputPhrase.JUMPS_IN_A_CIRCLE.of("gate, store, gate")));
    assertThat(model.report())
        .contains("opening store")
        .contains("warden@gate.example")
        .containsPattern("account +failed +12 ms")
        .contains("offered warden ed25519 SHA256:abc")
        .contains("warden: refused")
        .contains("a password was sent")
        .contains("not right")
        .contains("The jump hosts go in a circle: gate, store, gate.");
    assertThat(model.cures()).isEmpty();
  }
}
