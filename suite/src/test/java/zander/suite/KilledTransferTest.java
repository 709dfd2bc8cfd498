package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.seal.ContentSeal;
import zander.core.transfer.Transfer;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.endpoint.PartialNames;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.resume.LeftoverFiles;
import zander.core.transfer.resume.ResumeFolder;
import zander.core.transfer.resume.ResumeLogFile;
import zander.core.transfer.resume.SavedTransfer;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.work.Cancellation;
import zander.standin.server.Relay;

/**
 * A second program that carries a tree over an older one, killed with SIGKILL after a random number
 * of bytes, and another that goes on from the log it left. {@code -Dkills=75} for more of them.
 */
@Timeout(value = 20, unit = TimeUnit.MINUTES)
class KilledTransferTest {
  private static final int KILLS = Integer.getInteger("kills", 6);
  private static final int TREE_BYTES = 3_000_000;
  private static final List<String> NAMES = List.of("tree");

  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static Path original;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of(), List.of());
    original = Files.createDirectories(folder.resolve("original"));
    TwoVersions.make(original.resolve("tree"), 1);
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  /** The second program: port, known hosts, key, direction, from, to, log folder. */
  public static void main(String[] words) throws Exception {
    boolean up = Direction.valueOf(words[3]) == Direction.SEND_UP;
    Connection connection =
        SystemSshd.openFromOutside(
            Integer.parseInt(words[0]), Path.of(words[1]), Path.of(words[2]));
    PartialNames names = new PartialNames();
    SavedTransfer saved =
        new SavedTransfer(
            "1-" + names.mark(),
            1,
            "suite",
            up ? Direction.SEND_UP : Direction.BRING_DOWN,
            words[4],
            words[5],
            NAMES,
            names.mark(),
            SavedTransfer.Kept.of(TransferRules.of(ConflictRule.REPLACE)));
    ResumeLogFile log = new ResumeFolder(Path.of(words[6]), ContentSeal.ofThisRun()).begin(saved);
    log.ended(run(log, names, up, connection));
    log.close();
    System.exit(0);
  }

  private static Progress run(
      ResumeLogFile log, PartialNames names, boolean up, Connection connection) {
    Path from = Path.of(log.transfer().from());
    Path to = Path.of(log.transfer().to());
    return new Transfer(
            up ? new LocalEndpoint(from) : remote(from, names, connection),
            target(to, names, up, connection),
            log.transfer().rules().rules(),
            PathContract.NEVER_ASKED,
            new Cancellation(),
            log)
        .run(NAMES);
  }

  private static Target target(Path to, PartialNames names, boolean up, Connection connection) {
    return up ? remote(to, names, connection) : new LocalEndpoint(to, names);
  }

  private static RemoteEndpoint remote(Path at, PartialNames names, Connection connection) {
    return new RemoteEndpoint(
            new SharedConnectionChannels(() -> connection),
            RemotePath.of(at.toString()),
            Journal.NONE,
            null)
        .marked(names);
  }

  @Test
  void whatAKilledProgramCarriedIsGoneOnWith() throws Exception {
    Path old = folder.resolve("old");
    TwoVersions.makeOld(old);
    Random random = new Random(9);
    int killed = 0;
    for (int i = 0; i < KILLS; i++) {
      boolean up = i % 2 == 0;
      long at = 30_000L + random.nextInt(TREE_BYTES);
      Path goal = Files.createDirectories(folder.resolve("goal-" + i));
      TwoVersions.makeOld(goal);
      try {
        killed += one(goal, old, up, at) ? 1 : 0;
      } catch (AssertionError | Exception e) {
        throw new AssertionError((up ? "up" : "down") + ", killed at " + at, e);
      }
      LargeTree.remove(goal);
    }
    assertThat(killed).isGreaterThan(KILLS / 2);
  }

  /** Whether it was killed before it had ended. */
  private static boolean one(Path goal, Path old, boolean up, long at) throws Exception {
    Path logs = goal.resolveSibling(goal.getFileName() + "-log");
    boolean unfinished;
    try (Relay relay = new Relay(sshd.port())) {
      // What is held back here cannot have arrived, however quick the program is.
      relay.stallAfter(at);
      Process program = program(relay.port(), goal, up, logs);
      while (program.isAlive() && relay.carried() < at) {
        Thread.onSpinWait();
      }
      program.destroyForcibly();
      program.waitFor();
    }
    TwoVersions.assertOnlyWholeFiles(goal, old, original);
    try (Connection connection = sshd.open("root")) {
      ResumeLogFile left =
          new ResumeFolder(logs, ContentSeal.ofThisRun()).read(logFile(logs), false);
      unfinished = left.isUnfinished();
      PartialNames names = new PartialNames(left.transfer().mark());
      Progress progress = run(left, names, up, connection);
      left.close();
      assertThat(progress.problems()).isEmpty();
      LeftoverFiles.remove(target(goal, names, up, connection), NAMES, names, new Cancellation());
      assertThat(TwoVersions.temporary(goal)).isEmpty();
      assertThat(TwoVersions.contents(goal.resolve("tree")))
          .isEqualTo(TwoVersions.contents(original.resolve("tree")));
    }
    return unfinished;
  }

  private static Process program(int port, Path goal, boolean up, Path logs) throws IOException {
    return new ProcessBuilder(
            Path.of(System.getProperty("java.home"), "bin", "java").toString(),
            "-cp",
            System.getProperty("java.class.path"),
            KilledTransferTest.class.getName(),
            Integer.toString(port),
            folder.resolve("known-" + port).toString(),
            sshd.keyFile().toString(),
            (up ? Direction.SEND_UP : Direction.BRING_DOWN).name(),
            original.toString(),
            goal.toString(),
            logs.toString())
        .redirectErrorStream(true)
        .redirectOutput(folder.resolve("program.log").toFile())
        .start();
  }

  private static Path logFile(Path logs) throws IOException {
    try (Stream<Path> files = Files.list(logs)) {
      return files.findFirst().orElseThrow();
    }
  }
}
