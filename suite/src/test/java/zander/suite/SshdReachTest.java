package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import zander.core.connect.Connection;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.keys.KeyMaker;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.connect.report.SignInStep;
import zander.core.connect.signin.Hop;
import zander.core.connect.signin.SignInMethods;

/** Reaching the system's own sshd: jumps, passwords, questions, and its limits. */
class SshdReachTest extends SshdReachFixture {
  @Test
  void twoTriesAreEnoughForAChosenKeyAndAPassword() throws Exception {
    SystemSshd sshd =
        start("MaxAuthTries 2", "PasswordAuthentication yes", "KbdInteractiveAuthentication no");
    SystemSshd.setPassword(WARDEN, PASSWORD);
    Path other = folder.resolve("other");
    KeyMaker.make(KeyMaker.Kind.ED25519, "", new char[0], other);
    Connector connector = connector(null);
    TestPrompts talk = TestPrompts.withPassword(PASSWORD);
    SignInMethods ways = SignInMethods.byKey(other).orPassword();
    connector.open(sshd.address(WARDEN), ways, talk).close();
    assertThat(talk.asked).filteredOn(asked -> asked.equals("password")).hasSize(1);

    TestPrompts wrong = TestPrompts.withPassword("not this one");
    ConnectFailure failed = failure(connector, sshd.address(WARDEN), ways, wrong);
    assertThat(failed.reason()).isIn(Reason.TOO_MANY_TRIES, Reason.PASSWORD_REFUSED);
    assertThat(wrong.asked).filteredOn(asked -> asked.equals("password")).hasSize(1);
  }

  @Test
  void wrongPasswordsAreCountedAndNoneIsSentTwiceByItself() throws Exception {
    SystemSshd sshd = start("PasswordAuthentication yes", "KbdInteractiveAuthentication no");
    SystemSshd.setPassword(WARDEN, PASSWORD);
    List<Integer> counted = new ArrayList<>();
    TestPrompts talk =
        new TestPrompts() {
          @Override
          public char[] password(ServerAddress address, int wrong) {
            counted.add(wrong);
            return wrong < 2 ? "wrong".toCharArray() : PASSWORD.toCharArray();
          }
        };
    connector(null).open(sshd.address(WARDEN), SignInMethods.byPassword(), talk).close();
    assertThat(counted).containsExactly(0, 1, 2);
    assertThat(sshd.log().split("Failed password", -1)).hasSize(3);
  }

  @Test
  void answersTheQuestionsOfPam() throws Exception {
    SystemSshd sshd =
        start("UsePAM yes", "KbdInteractiveAuthentication yes", "PasswordAuthentication no");
    SystemSshd.setPassword(WARDEN, PASSWORD);
    TestPrompts talk = TestPrompts.accepting();
    talk.answers = List.of(PASSWORD);
    connector(null).open(sshd.address(WARDEN), SignInMethods.byPassword(), talk).close();
    assertThat(talk.asked).last().asString().startsWith("asked").contains("assword");
    assertThat(sshd.log()).contains("Accepted keyboard-interactive/pam");
  }

  @Test
  void aKeyAndAPasswordTogether() throws Exception {
    SystemSshd sshd =
        start(
            "PasswordAuthentication yes",
            "KbdInteractiveAuthentication no",
            "AuthenticationMethods publickey,password");
    SystemSshd.setPassword(WARDEN, PASSWORD);
    Connector connector = connector(null);
    TestPrompts talk = TestPrompts.withPassword(PASSWORD);
    SignInMethods key = SignInMethods.byKey(sshd.keyFile());
    connector.open(sshd.address(WARDEN), key.orPassword(), talk).close();
    assertThat(talk.proofs()).anyMatch(proof -> proof.startsWith("TAKEN"));
    ConnectFailure half = failure(connector, sshd.address(WARDEN), key, TestPrompts.accepting());
    assertThat(half.reason()).isEqualTo(Reason.MORE_WANTED);
  }

  @Test
  void goesThroughASecondServer() throws Exception {
    SystemSshd gate = start("gate", List.of(WARDEN), "AllowTcpForwarding yes");
    SystemSshd store = start("store", List.of("zndreach"));
    Connector connector = connector(null);
    TestPrompts talk = TestPrompts.accepting();
    Hop through = new Hop(gate.address(WARDEN), SignInMethods.byKey(gate.keyFile()));
    Hop goal = new Hop(store.address("zndreach"), SignInMethods.byKey(store.keyFile()));
    try (Connection in = connector.open(List.of(through, goal), null, talk)) {
      assertThat(in.whoAmI().account()).isEqualTo("zndreach");
      assertThat(in.run("id -un", new byte[0]).outText()).isEqualTo("zndreach\n");
      byte[] much = new byte[3 << 20];
      new java.util.Random(1).nextBytes(much);
      assertThat(in.run("cat", much).out()).isEqualTo(much);
    }
    assertThat(talk.notes).extracting(note -> note.hop().account()).contains(WARDEN, "zndreach");
    // Three in a row, the first of them twice.
    connector.open(List.of(through, goal, through), "/etc", talk).close();
  }

  @Test
  void tellsWhyAJumpHostDidNotLeadOn() throws Exception {
    SystemSshd gate = start("gate", List.of(WARDEN), "AllowTcpForwarding no");
    Hop through = new Hop(gate.address(WARDEN), SignInMethods.byKey(gate.keyFile()));
    ConnectFailure refused =
        catchThrowableOfType(
            ConnectFailure.class,
            () -> connector(null).open(List.of(through, through), null, TestPrompts.accepting()));
    assertThat(refused.reason()).isEqualTo(Reason.JUMP_REFUSED);
    assertThat(refused.step()).isEqualTo(SignInStep.PORT);
  }

  @Test
  void opensMoreLinesWhereChannelsAreLimited() throws Exception {
    SystemSshd sshd = start("MaxSessions 1");
    TestPrompts talk = TestPrompts.accepting();
    try (Connection in =
        connector(null).open(sshd.address(WARDEN), SignInMethods.byKey(sshd.keyFile()), talk)) {
      assertThat(in.lineCount()).isEqualTo(1);
      assertThat(in.landing().failure()).isNull();
      assertThat(in.run("echo one", new byte[0]).outText()).isEqualTo("one\n");
      var shell = in.openShell(in.whoAmI().home(), 80, 24);
      assertThat(in.run("echo two", new byte[0]).outText()).isEqualTo("two\n");
      assertThat(in.lineCount()).isEqualTo(3);
      shell.close();
    }
    assertThat(talk.asked).hasSize(1);
  }

  @Test
  void aForcedDisconnectEndsTheConnectionAndASecondOneIsAsGood() throws Exception {
    SystemSshd sshd = start();
    Connector connector = connector(null);
    Connection first =
        connector.open(
            sshd.address(WARDEN), SignInMethods.byKey(sshd.keyFile()), TestPrompts.accepting());
    java.util.concurrent.CountDownLatch ended = new java.util.concurrent.CountDownLatch(1);
    first.onEnd(ended::countDown);
    first.run("kill -9 $PPID", new byte[0]);
    assertThat(ended.await(20, java.util.concurrent.TimeUnit.SECONDS)).isTrue();
    assertThat(first.isOpen()).isFalse();
    assertThat(first.prove(Duration.ofSeconds(2))).isFalse();
    connector
        .open(sshd.address(WARDEN), SignInMethods.byKey(sshd.keyFile()), TestPrompts.accepting())
        .close();
  }
}
