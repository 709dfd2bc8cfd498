package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.seal.ContentSeal;
import zander.core.transfer.Transfer;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.endpoint.PartialNames;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.resume.LeftoverFiles;
import zander.core.transfer.resume.ResumeFolder;
import zander.core.transfer.resume.ResumeLogFile;
import zander.core.transfer.resume.SavedTransfer;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.ReconnectPrompt;
import zander.core.transfer.rules.TransferRules;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.work.Cancellation;
import zander.standin.server.Relay;

/**
 * Transfers of a small tree over files that are there already, cut at random bytes against {@code
 * sshd}: the line reset, gone silent, the server's processes killed, or the program gone. Then each
 * is continued. At no moment is a file over there anything but whole, old or new; in the end the
 * trees are equal and nothing temporary is left. {@code -Dcuts=300} for more of them.
 */
class CutTransferTest {
  private static final int CUTS = Integer.getInteger("cuts", 48);
  private static final int TREE_BYTES = 3_300_000;
  private static final List<String> NAMES = List.of("tree");

  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static Path original;
  private static List<String> wanted;

  /** How the line or the program goes. */
  private enum Cut {
    RESET,
    SILENT,
    SERVER_KILLED,
    PROGRAM_GONE
  }

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of(), List.of());
    original = Files.createDirectories(folder.resolve("original"));
    TwoVersions.make(original.resolve("tree"), 1);
    wanted = LargeTree.describe(original.resolve("tree"));
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  @Test
  void everyTransferThatWasCutIsContinued() throws Exception {
    Path old = folder.resolve("old");
    TwoVersions.makeOld(old);
    Random random = new Random(20261123);
    List<String> ran = new ArrayList<>();
    for (int i = 0; i < CUTS; i++) {
      Cut cut = Cut.values()[i % Cut.values().length];
      boolean up = i / 4 % 2 == 0;
      boolean filesAlone = i / 8 % 2 == 0;
      long at = 4000L + random.nextInt(TREE_BYTES);
      String what = cut + (up ? " up" : " down") + (filesAlone ? " by files" : "") + " at " + at;
      Path goal = Files.createDirectories(folder.resolve("goal-" + i));
      TwoVersions.makeOld(goal);
      try {
        one(goal, old, cut, up, filesAlone, at);
      } catch (AssertionError | Exception e) {
        throw new AssertionError(what, e);
      }
      ran.add(what);
      LargeTree.remove(goal);
    }
    assertThat(ran).hasSize(CUTS);
  }

  private static void one(Path goal, Path old, Cut cut, boolean up, boolean filesAlone, long at)
      throws Exception {
    Path logs = goal.resolveSibling(goal.getFileName() + "-log");
    PartialNames names = new PartialNames();
    try (Relay relay = new Relay(sshd.port())) {
      AtomicReference<Connection> connection =
          new AtomicReference<>(sshd.openThrough("root", relay.port()));
      ResumeLogFile log =
          new ResumeFolder(logs, ContentSeal.ofThisRun()).begin(saved(names, up, goal));
      switch (cut) {
        case SILENT -> relay.stallAfter(at);
        default -> relay.cutAfter(at);
      }
      boolean gone = cut == Cut.PROGRAM_GONE;
      ReconnectPrompt lostLine = gone ? ReconnectPrompt.ENDS_IT : () -> back(relay, connection);
      Thread watcher = cut == Cut.SILENT ? proving(connection.get()) : null;
      if (cut == Cut.SERVER_KILLED) {
        killWhen(relay, at / 2);
      }
      Progress progress = transfer(log, names, up, goal, connection, filesAlone, lostLine);
      if (watcher != null) {
        watcher.interrupt();
        watcher.join();
      }
      TwoVersions.assertOnlyWholeFiles(goal, old, original);
      log.ended(progress);
      log.close();
      if (progress.phase() == Phase.BROKEN) {
        back(relay, connection);
        ResumeLogFile left =
            new ResumeFolder(logs, ContentSeal.ofThisRun()).read(log.file(), false);
        assertThat(left.isUnfinished()).isTrue();
        progress = transfer(left, names, up, goal, connection, filesAlone, ReconnectPrompt.ENDS_IT);
        left.close();
      }
      assertThat(progress.problems()).isEmpty();
      assertThat(progress.phase()).isEqualTo(Phase.DONE);
      LeftoverFiles.remove(target(names, up, goal, connection, filesAlone), NAMES, names, go());
      assertThat(TwoVersions.temporary(goal)).isEmpty();
      assertThat(LargeTree.describe(goal.resolve("tree"))).hasSameSizeAs(wanted);
      assertThat(TwoVersions.contents(goal.resolve("tree")))
          .isEqualTo(TwoVersions.contents(original.resolve("tree")));
      connection.get().drop();
    }
  }

  private static Cancellation go() {
    return new Cancellation();
  }

  private static SavedTransfer saved(PartialNames names, boolean up, Path goal) {
    return new SavedTransfer(
        "1-" + names.mark(),
        1,
        "suite",
        up ? Direction.SEND_UP : Direction.BRING_DOWN,
        original.toString(),
        goal.toString(),
        NAMES,
        names.mark(),
        SavedTransfer.Kept.of(TransferRules.of(ConflictRule.REPLACE)));
  }

  private static RemoteEndpoint remote(
      Path at, PartialNames names, AtomicReference<Connection> connection, boolean filesAlone) {
    RemoteEndpoint side =
        new RemoteEndpoint(
                new SharedConnectionChannels(connection::get),
                RemotePath.of(at.toString()),
                Journal.NONE,
                null)
            .marked(names);
    return (filesAlone ? side.byFilesAlone() : side).withFolders();
  }

  private static Target target(
      PartialNames names,
      boolean up,
      Path goal,
      AtomicReference<Connection> connection,
      boolean filesAlone) {
    return up ? remote(goal, names, connection, filesAlone) : new LocalEndpoint(goal, names);
  }

  private static Progress transfer(
      ResumeLogFile log,
      PartialNames names,
      boolean up,
      Path goal,
      AtomicReference<Connection> connection,
      boolean filesAlone,
      ReconnectPrompt lostLine) {
    Source source =
        up ? new LocalEndpoint(original) : remote(original, names, connection, filesAlone);
    return new Transfer(
            source,
            target(names, up, goal, connection, filesAlone),
            log.transfer().rules().rules(),
            PathContract.NEVER_ASKED,
            go(),
            log)
        .whenLineBreaks(lostLine)
        .run(NAMES);
  }

  /** As a desk does: one of the threads that wait signs in again, the others use what it gets. */
  private static synchronized boolean back(Relay relay, AtomicReference<Connection> connection) {
    try {
      if (!connection.get().isOpen()) {
        relay.heal();
        connection.set(sshd.openThrough("root", relay.port()));
      }
      return true;
    } catch (IOException e) {
      return false;
    }
  }

  /** Gives a silent line up, as a desk does when an answer stays out. */
  private static Thread proving(Connection connection) {
    Thread thread =
        new Thread(
            () -> {
              while (!Thread.currentThread().isInterrupted() && connection.isOpen()) {
                connection.prove(java.time.Duration.ofMillis(700));
              }
            });
    thread.setDaemon(true);
    thread.start();
    return thread;
  }

  private static void killWhen(Relay relay, long bytes) {
    Thread thread =
        new Thread(
            () -> {
              long start = relay.carried();
              while (relay.carried() - start < bytes) {
                Thread.onSpinWait();
              }
              sshd.killSessions();
            });
    thread.setDaemon(true);
    thread.start();
  }
}
