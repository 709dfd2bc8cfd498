package zander.suite.servers;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.signin.SignInMethods;
import zander.core.trust.WireKey;
import zander.suite.SystemSshd;
import zander.suite.TestPrompts;

/** A person may think for longer than a server waits (sshd's LoginGraceTime). */
@Timeout(value = 60, unit = TimeUnit.SECONDS)
class LongThoughtTest {
  private static final String ACCOUNT = "zndthink";

  @TempDir static Path folder;
  private static SystemSshd sshd;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd =
        new SystemSshd(
            folder, List.of(ACCOUNT), List.of("LoginGraceTime 10", "PasswordAuthentication yes"));
    SystemSshd.setPassword(ACCOUNT, "heron-at-dusk");
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  /** Thinks until the server has hung up. */
  private static final class Slow extends TestPrompts {
    private boolean thinksAboutKey;
    private int thoughts;

    private void think() {
      long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(30);
      while (sshd.sessionCount() > 0) {
        Thread.onSpinWait();
        assertThat(System.nanoTime()).as("the server hangs up").isLessThan(end);
      }
      thoughts++;
    }

    @Override
    public boolean isHostKeyRight(ServerAddress address, WireKey shown) {
      if (thinksAboutKey) {
        think();
      }
      return super.isHostKeyRight(address, shown);
    }

    @Override
    public char[] password(ServerAddress address, int wrong) {
      if (!thinksAboutKey) {
        think();
      }
      assertThat(wrong).as("nothing was refused").isZero();
      return super.password(address, wrong);
    }
  }

  private static Connection open(TestPrompts talk) throws IOException {
    return sshd.connector.open(sshd.address(ACCOUNT), SignInMethods.byPassword(), talk);
  }

  @Test
  void aRightPasswordThatCameTooLateIsSentOnceMoreAndAskedForOnce() throws Exception {
    Slow talk = new Slow();
    talk.password = "heron-at-dusk";
    try (Connection connection = open(talk)) {
      assertThat(connection.isOpen()).isTrue();
    }
    assertThat(talk.asked).filteredOn("password"::equals).hasSize(1);
    assertThat(talk.thoughts).isEqualTo(1);
  }

  @Test
  void aHostKeyThatWasAcceptedTooLateIsKnownAtTheNextDial() throws Exception {
    Files.deleteIfExists(sshd.connector.knownHosts().file());
    Slow talk = new Slow();
    talk.thinksAboutKey = true;
    talk.password = "heron-at-dusk";
    try (Connection connection = open(talk)) {
      assertThat(connection.isOpen()).isTrue();
    }
    assertThat(talk.thoughts).isEqualTo(1);
  }

  @Test
  void aWrongOneIsWrongAllTheSame() throws Exception {
    TestPrompts talk = TestPrompts.withPassword("otter-under-ice");
    ConnectFailure failure = catchThrowableOfType(ConnectFailure.class, () -> open(talk));
    assertThat(failure.reason()).isEqualTo(ConnectFailure.Reason.PASSWORD_REFUSED);
    assertThat(talk.asked).filteredOn("password"::equals).hasSize(3);
  }
}
