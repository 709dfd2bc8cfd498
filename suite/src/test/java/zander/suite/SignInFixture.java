package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.connect.report.SignInStep;
import zander.core.connect.signin.SignInMethods;

/** The river's servers, and what a failed sign-in is judged by. */
abstract class SignInFixture {
  @TempDir Path folder;
  Riverside riverside;

  @BeforeEach
  void start() throws IOException {
    riverside = new Riverside(folder);
  }

  @AfterEach
  void stop() {
    riverside.close();
  }

  ConnectFailure failureOf(ServerAddress address, SignInMethods ways, TestPrompts talk) {
    return catchThrowableOfType(
        ConnectFailure.class, () -> riverside.connector.open(address, ways, talk));
  }

  static void assertFailed(ConnectFailure failure, SignInStep step, Reason reason) {
    assertThat(failure).isNotNull();
    assertThat(failure.reason()).as(failure.getMessage()).isEqualTo(reason);
    assertThat(failure.step()).isEqualTo(step);
  }
}
