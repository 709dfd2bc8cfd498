package zander.suite.rights;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowable;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.OptionalInt;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.PutBack;
import zander.core.change.PutBack.Verdict;
import zander.core.change.Recovery;
import zander.core.change.rights.PlanGroup;
import zander.core.change.rights.PlanGroup.Fate;
import zander.core.change.rights.TreeOutcome;
import zander.core.change.rights.TreeOutcome.Why;
import zander.core.change.rights.TreePlan;
import zander.core.change.rights.TreePlanner;
import zander.core.change.rights.TreeRightsTask;
import zander.core.change.rights.TreeRightsTask.Progress;
import zander.core.change.rights.TreeSteps;
import zander.core.change.rights.look.TreeRoots;
import zander.core.connect.Connection;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalEntry;
import zander.core.journal.JournalRules;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.Mode;
import zander.core.rights.ModeRule;
import zander.core.rights.TreeRights;
import zander.core.work.Cancellation;
import zander.suite.SystemSshd;

/** Rights of trees where something comes in between: a swap, a stop, a cut line, a mount. */
@Timeout(value = 300, unit = TimeUnit.SECONDS)
class TreeRightsTroubleTest {
  private static final int MANY = 6000;
  private static final TreeRights PUBLIC =
      new TreeRights(
          OptionalInt.empty(),
          OptionalInt.empty(),
          new ModeRule.Exact(new Mode(0640), false),
          new ModeRule.Exact(new Mode(0750), false));

  @TempDir Path top;
  private SystemSshd sshd;
  private FileJournal journal;
  private Path tree;

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(top, List.of(RightsGround.OWNER), List.of());
    journal = new FileJournal(top.resolve("journal"), "lab-box", JournalRules.USUAL);
    tree = top.resolve(RightsGround.OWNER).resolve("site");
    SystemSshd.run(
        "sh",
        "-ec",
        "mkdir -p $0/a $0/b; cd $0; echo 1 > a/one; echo 2 > b/two; echo 3 > three;"
            + " chmod 664 a/one b/two three; chown -R $1: .",
        tree.toString(),
        RightsGround.OWNER);
  }

  @AfterEach
  void stop() throws Exception {
    if (sshd != null) {
      journal.close();
      sshd.close();
    }
  }

  private void fill() throws Exception {
    SystemSshd.run(
        "sh",
        "-ec",
        "cd $0/a; seq -f reading-%.0f $2 | xargs touch; chmod 664 reading-*; chown $1: reading-*",
        tree.toString(),
        RightsGround.OWNER,
        String.valueOf(MANY));
  }

  private TreePlan plan(Connection connection, TreeRights wanted) throws Exception {
    Asker by = new Asker(connection.whoAmI().uid(), new HashSet<>(connection.whoAmI().gids()));
    TreeRoots roots = TreeRoots.of(List.of(RemotePath.of(tree.toString())));
    return new TreePlanner(connection.files(), connection)
        .plan(roots, wanted, by, false, seen -> {}, new Cancellation());
  }

  private static TreeSteps all(TreePlan plan) throws Exception {
    return plan.choose(new HashSet<>(plan.groups()), Set.of());
  }

  private static int mode(Path path) throws Exception {
    return (int) Files.getAttribute(path, "unix:mode", java.nio.file.LinkOption.NOFOLLOW_LINKS)
        & 07777;
  }

  private TreeRightsTask task(Connection connection) {
    return new TreeRightsTask(connection.files(), connection, journal);
  }

  @Test
  void whatBecameAnotherThingSinceIsLeftAndTold() throws Exception {
    Path secret = Files.writeString(top.resolve("secret"), "the gate's code");
    SystemSshd.run("chmod", "600", secret.toString());
    for (String account : List.of(RightsGround.OWNER, "root")) {
      try (Connection connection = sshd.open(account)) {
        TreeSteps steps = all(plan(connection, PUBLIC));
        SystemSshd.run("ln", "-sf", secret.toString(), tree.resolve("a/one").toString());
        SystemSshd.run(
            "sh", "-ec", "cd $0; cp -p two new; mv new two", tree.resolve("b").toString());
        SystemSshd.run("chmod", "600", tree.resolve("three").toString());
        TreeOutcome outcome = task(connection).run(steps, Progress.NONE, new Cancellation());
        assertThat(outcome.some())
            .extracting(left -> left.path().name() + " " + left.why())
            .containsExactlyInAnyOrder(
                "one " + Why.OTHER_THING, "two " + Why.OTHER_THING, "three " + Why.CHANGED_SINCE);
        assertThat(mode(secret)).isEqualTo(0600);
        assertThat(mode(tree.resolve("a"))).isEqualTo(0750);
        task(connection).putBack(journal.entries().get(0), Progress.NONE, new Cancellation());
        assertThat(mode(tree.resolve("a"))).isEqualTo(0755);
        SystemSshd.run(
            "sh",
            "-ec",
            "cd $0; rm a/one; echo 1 > a/one; chmod 664 a/one b/two three; chown -R $1: .",
            tree.toString(),
            RightsGround.OWNER);
      }
    }
  }

  @Test
  void whatWasStoppedIsPutBackExactly() throws Exception {
    fill();
    String before = RightsGround.describe(tree);
    try (Connection connection = sshd.open(RightsGround.OWNER)) {
      TreeSteps steps = all(plan(connection, PUBLIC));
      Cancellation stop = new Cancellation();
      TreeOutcome outcome = task(connection).run(steps, (done, of) -> stop.stop(), stop);
      assertThat(outcome.stopped()).isTrue();
      assertThat(outcome.set()).isLessThan(steps.size());
      assertThat(outcome.set() + outcome.left()).isEqualTo(steps.size());
      assertThat(outcome.some()).allMatch(left -> left.why() == Why.NOT_COME_TO);
      PutBack back =
          new PutBack(connection.files(), connection, journal, connection.whoAmI().home());
      assertThat(back.run(journal.entries().get(0), false)).isEqualTo(Verdict.READY);
    }
    assertThat(RightsGround.describe(tree)).isEqualTo(before);
  }

  @Test
  void whatALostLineCutOffIsGoneOnWithAndTakenBack() throws Exception {
    fill();
    String before = RightsGround.describe(tree);
    for (boolean finish : new boolean[] {false, true}) {
      try (Connection connection = sshd.open(RightsGround.OWNER)) {
        TreeSteps steps = all(plan(connection, PUBLIC));
        RemoteFailure cut =
            catchThrowableOfType(
                RemoteFailure.class,
                () ->
                    task(connection)
                        .run(steps, (done, of) -> sshd.killSessions(), new Cancellation()));
        assertThat(cut.reason()).isEqualTo(RemoteFailure.Reason.LINE_LOST);
      }
      try (Connection again = sshd.open(RightsGround.OWNER)) {
        JournalEntry left = journal.unfinished().get(0);
        Recovery recovery = new Recovery(again.files(), again, journal);
        Recovery.Finding found = recovery.look(left);
        assertThat(found.mayFinish()).isTrue();
        if (finish) {
          recovery.finish(found);
          assertThat(SystemSshd.run("find", tree.toString(), "-type", "f", "!", "-perm", "640"))
              .isEmpty();
          assertThat(SystemSshd.run("find", tree.toString(), "-type", "d", "!", "-perm", "750"))
              .isEmpty();
        } else {
          recovery.undo(found);
          assertThat(RightsGround.describe(tree)).isEqualTo(before);
        }
        assertThat(journal.unfinished()).isEmpty();
      }
    }
  }

  @Test
  void anotherFileSystemIsLeftAloneUnlessItIsMeant() throws Exception {
    Path mount = tree.resolve("b/mounted");
    Files.createDirectories(mount);
    SystemSshd mounted;
    try {
      mounted =
          new SystemSshd(
              Files.createDirectory(top.resolve("mounts")),
              List.of(),
              List.of(),
              "mount -t tmpfs none " + mount + " && touch " + mount + "/inside");
    } catch (java.io.IOException e) {
      Assumptions.abort("nothing can be mounted here: " + e.getMessage());
      return;
    }
    try (mounted;
        Connection connection = mounted.open("root")) {
      TreePlan plan = plan(connection, PUBLIC);
      assertThat(count(plan, Fate.OTHER_FILE_SYSTEM)).isEqualTo(1);
      assertThat(count(plan, Fate.CHANGED)).isEqualTo(6);
      TreePlan both =
          new TreePlanner(connection.files(), connection)
              .plan(
                  plan.roots(),
                  PUBLIC,
                  new Asker(0, Set.of(0)),
                  true,
                  seen -> {},
                  new Cancellation());
      assertThat(count(both, Fate.OTHER_FILE_SYSTEM)).isZero();
      assertThat(count(both, Fate.CHANGED)).isEqualTo(8);
    }
  }

  private static long count(TreePlan plan, Fate fate) {
    return plan.groups().stream()
        .filter(group -> group.fate() == fate)
        .mapToLong(PlanGroup::count)
        .sum();
  }

  /** More names than one command line holds. */
  @Test
  void fiftyThousandSelectedEntriesAreOneChange() throws Exception {
    String name = "a-reading-of-the-river-with-a-name-as-long-as-some-programs-like-them-";
    SystemSshd.run(
        "sh",
        "-ec",
        "cd $0; seq -f '"
            + name
            + "%.0f' 50000 | xargs touch; find . -name 'a-r*' -exec chmod 664"
            + " {} +; chown -R $1: .",
        tree.toString(),
        RightsGround.OWNER);
    List<RemotePath> all = new ArrayList<>();
    for (int i = 1; i <= 50_000; i++) {
      all.add(RemotePath.of(tree + "/" + name + i));
    }
    try (Connection connection = sshd.open(RightsGround.OWNER)) {
      Asker by = new Asker(connection.whoAmI().uid(), new HashSet<>(connection.whoAmI().gids()));
      TreePlan plan =
          new TreePlanner(connection.files(), connection)
              .plan(TreeRoots.of(all), PUBLIC, by, false, seen -> {}, new Cancellation());
      assertThat(count(plan, Fate.CHANGED)).isEqualTo(50_000);
      assertThat(task(connection).run(all(plan), Progress.NONE, new Cancellation()).set())
          .isEqualTo(50_000);
    }
    assertThat(SystemSshd.run("find", tree.toString(), "-name", "a-r*", "!", "-perm", "640"))
        .isEmpty();
  }

  /** Whatever it fails for, what was begun is not lost: it can be gone on with. */
  @Test
  void whatFailsInTheMidstStaysUnderWay() throws Exception {
    fill();
    try (Connection connection = sshd.open(RightsGround.OWNER)) {
      TreeRightsTask task = task(connection);
      TreeSteps steps = all(plan(connection, PUBLIC));
      IOException broken = new IOException("the test's own");
      Throwable failed =
          catchThrowable(
              () ->
                  task.run(
                      steps,
                      (done, of) -> {
                        throw new UncheckedIOException(broken);
                      },
                      new Cancellation()));
      assertThat(failed).isInstanceOf(UncheckedIOException.class);
      assertThat(task.isCut()).isTrue();
      JournalEntry left = journal.unfinished().get(0);
      assertThat(task.goOn(left, Progress.NONE, new Cancellation()).isWhole()).isTrue();
      assertThat(task.isCut()).isFalse();
      assertThat(journal.unfinished()).isEmpty();
    }
  }

  /** A folder that cannot be looked into is told, and is itself set. */
  @Test
  void whatCannotBeLookedIntoIsTold() throws Exception {
    SystemSshd.run("chmod", "300", tree.resolve("a").toString());
    try (Connection connection = sshd.open(RightsGround.OWNER)) {
      TreePlan plan = plan(connection, PUBLIC);
      assertThat(count(plan, Fate.UNREADABLE)).isEqualTo(1);
      task(connection).run(all(plan), Progress.NONE, new Cancellation());
      assertThat(mode(tree.resolve("a"))).isEqualTo(0750);
      assertThat(mode(tree.resolve("a/one"))).isEqualTo(0664);
    }
  }
}
