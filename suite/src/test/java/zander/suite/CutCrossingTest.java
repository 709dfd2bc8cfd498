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
import zander.core.crossing.Crossing;
import zander.core.crossing.CrossingLog;
import zander.core.crossing.Direction;
import zander.core.crossing.Leftovers;
import zander.core.crossing.LocalSide;
import zander.core.crossing.LostLine;
import zander.core.crossing.OwnLine;
import zander.core.crossing.PartNames;
import zander.core.crossing.Progress;
import zander.core.crossing.Progress.Phase;
import zander.core.crossing.RemoteSide;
import zander.core.crossing.Rules;
import zander.core.crossing.SavedCrossing;
import zander.core.crossing.Side;
import zander.core.crossing.WhenExists;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.work.Cancellation;
import zander.standin.server.Relay;

/**
 * Crossings of a small tree over files that are there already, cut at random bytes against {@code
 * sshd}: the line reset, gone silent, the server's processes killed, or the program gone. Then each
 * is continued. At no moment is a file over there anything but whole, old or new; in the end the
 * trees are equal and nothing temporary is left. {@code -Dcuts=300} for more of them.
 */
class CutCrossingTest {
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
  void everyCrossingThatWasCutIsContinued() throws Exception {
    Path old = folder.resolve("old");
    TwoVersions.makeOld(old);
    Random random = new Random(20261123);
    List<String> ran = new ArrayList<>();
    for (int i = 0; i < CUTS; i++) {
      Cut cut = Cut.values()[i % Cut.values().length];
      boolean up = i / 4 % 2 == 0;
      boolean filesAlone = i / 8 % 2 == 0;
      long at = 4000 + random.nextInt(TREE_BYTES);
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
    PartNames names = new PartNames();
    try (Relay relay = new Relay(sshd.port())) {
      AtomicReference<Connection> connection =
          new AtomicReference<>(sshd.openThrough("root", relay.port()));
      CrossingLog log = CrossingLog.begin(logs, saved(names, up, goal));
      switch (cut) {
        case SILENT -> relay.stallAfter(at);
        default -> relay.cutAfter(at);
      }
      boolean gone = cut == Cut.PROGRAM_GONE;
      LostLine lostLine = gone ? LostLine.ENDS_IT : () -> back(relay, connection);
      Thread watcher = cut == Cut.SILENT ? proving(connection.get()) : null;
      if (cut == Cut.SERVER_KILLED) {
        killWhen(relay, at / 2);
      }
      Progress progress = cross(log, names, up, goal, connection, filesAlone, lostLine);
      if (watcher != null) {
        watcher.interrupt();
        watcher.join();
      }
      TwoVersions.assertOnlyWholeFiles(goal, old, original);
      log.ended(progress);
      log.close();
      if (progress.phase() == Phase.BROKEN) {
        back(relay, connection);
        CrossingLog left = CrossingLog.read(log.file());
        assertThat(left.isUnfinished()).isTrue();
        progress = cross(left, names, up, goal, connection, filesAlone, LostLine.ENDS_IT);
        left.close();
      }
      assertThat(progress.problems()).isEmpty();
      assertThat(progress.phase()).isEqualTo(Phase.DONE);
      Leftovers.remove(target(names, up, goal, connection, filesAlone), NAMES, names, go());
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

  private static SavedCrossing saved(PartNames names, boolean up, Path goal) {
    return new SavedCrossing(
        "1-" + names.mark(),
        1,
        "suite",
        up ? Direction.SEND_UP : Direction.BRING_DOWN,
        original.toString(),
        goal.toString(),
        NAMES,
        names.mark(),
        SavedCrossing.Kept.of(Rules.of(WhenExists.REPLACE)));
  }

  private static RemoteSide remote(
      Path at, PartNames names, AtomicReference<Connection> connection, boolean filesAlone) {
    RemoteSide side =
        new RemoteSide(
                new OwnLine(connection::get), RemotePath.of(at.toString()), Journal.NONE, null)
            .marked(names);
    return (filesAlone ? side.byFilesAlone() : side).withFolders();
  }

  private static Side target(
      PartNames names,
      boolean up,
      Path goal,
      AtomicReference<Connection> connection,
      boolean filesAlone) {
    return up ? remote(goal, names, connection, filesAlone) : new LocalSide(goal, names);
  }

  private static Progress cross(
      CrossingLog log,
      PartNames names,
      boolean up,
      Path goal,
      AtomicReference<Connection> connection,
      boolean filesAlone,
      LostLine lostLine) {
    Side source = up ? new LocalSide(original) : remote(original, names, connection, filesAlone);
    return new Crossing(
            source,
            target(names, up, goal, connection, filesAlone),
            log.crossing().rules().rules(),
            PathContract.NEVER_ASKED,
            go(),
            lostLine,
            log)
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
