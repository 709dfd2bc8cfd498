package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.Transfer;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.resume.ResumeLog;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.work.Cancellation;

/** One large odd tree up, down and from server to server, by every carrier, against sshd. */
class SshdTransferTest {
  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static Connection connection;
  private static Path original;
  private static List<String> wanted;

  /** How files go. */
  /** Bits that stay away from this computer. */
  private static final int SET_ID_AND_STICKY = 07000;

  enum Carrier {
    PROGRAMS,
    FILES
  }

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of(), List.of());
    connection = sshd.open("root");
    original = folder.resolve("original");
    LargeTree.make(original.resolve("tree"), LargeTree.size());
    wanted = LargeTree.describe(original.resolve("tree"));
  }

  @AfterAll
  static void stop() throws Exception {
    if (connection != null) {
      connection.close();
    }
    if (sshd != null) {
      sshd.close();
    }
  }

  private static RemoteEndpoint remote(Path at, Carrier carrier) {
    RemoteEndpoint side =
        new RemoteEndpoint(
            new SharedConnectionChannels(() -> connection),
            RemotePath.of(at.toString()),
            Journal.NONE,
            connection.whoAmI().home());
    return carrier == Carrier.FILES ? side.byFilesAlone() : side;
  }

  private static void transfer(Source source, Target target, Path goal, TransferRules rules)
      throws Exception {
    Progress progress =
        new Transfer(
                source, target, rules, PathContract.NEVER_ASKED, new Cancellation(), ResumeLog.NONE)
            .run(List.of("tree"));
    assertThat(progress.problems()).isEmpty();
    assertThat(progress.phase()).isEqualTo(Phase.DONE);
    assertThat(LargeTree.describe(goal.resolve("tree")))
        .isEqualTo(
            target instanceof LocalEndpoint
                ? LargeTree.describe(original.resolve("tree"), SET_ID_AND_STICKY)
                : wanted);
  }

  private static Path fresh(String name) throws Exception {
    return Files.createDirectory(folder.resolve(name));
  }

  @ParameterizedTest
  @EnumSource
  void sendsUp(Carrier carrier) throws Exception {
    Path goal = fresh("up-" + carrier);
    transfer(
        new LocalEndpoint(original),
        remote(goal, carrier),
        goal,
        TransferRules.of(ConflictRule.ASK).check(carrier == Carrier.PROGRAMS));
    LargeTree.remove(goal);
  }

  @ParameterizedTest
  @EnumSource
  void bringsDown(Carrier carrier) throws Exception {
    Path goal = fresh("down-" + carrier);
    transfer(
        remote(original, carrier).withFolders(),
        new LocalEndpoint(goal),
        goal,
        TransferRules.of(ConflictRule.ASK));
    LargeTree.remove(goal);
  }

  @ParameterizedTest
  @EnumSource
  void carriesFromServerToServer(Carrier carrier) throws Exception {
    Path goal = fresh("across-" + carrier);
    transfer(
        remote(original, carrier), remote(goal, carrier), goal, TransferRules.of(ConflictRule.ASK));
    LargeTree.remove(goal);
  }

  @Test
  void carriesNothingThatIsTheSame() throws Exception {
    Path goal = fresh("twice");
    Source source = new LocalEndpoint(original);
    transfer(source, remote(goal, Carrier.PROGRAMS), goal, TransferRules.of(ConflictRule.ASK));
    Progress again =
        new Transfer(
                source,
                remote(goal, Carrier.PROGRAMS),
                ConflictRule.DIFFERENT,
                PathContract.NEVER_ASKED,
                new Cancellation())
            .run(List.of("tree"));
    assertThat(again.bytes()).isZero();
    assertThat(again.same()).isEqualTo(again.files());
    LargeTree.remove(goal);
  }
}
