package zander.suite.rights;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zander.core.change.rights.PlanGroup.Fate;
import zander.core.change.rights.TreePlan;
import zander.core.change.rights.TreePlanner;
import zander.core.change.rights.TreeRightsTask;
import zander.core.change.rights.look.TreeRoots;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalRules;
import zander.core.kept.KeptFolder;
import zander.core.kept.KeptLearner;
import zander.core.kept.KeptLook;
import zander.core.kept.KeptRights;
import zander.core.kept.KeptWish;
import zander.core.rights.AccessList.Asker;
import zander.core.work.Cancellation;
import zander.suite.SystemSshd;

/**
 * Rights that a folder keeps, against {@code find} that goes through the lines one after the other
 * and sets what each says.
 *
 * <p>Judged: what a folder's lines on rights make of a tree, by account and as root, by shell and
 * by file service | {@code find} with {@code chmod} and {@code chown}, line by line, on a copy | 60
 * trees ({@code kept.cases})
 */
class KeptRightsJudgeTest {
  private static final int CASES = Integer.getInteger("kept.cases", 20);
  private static final int ENTRIES = 40;
  private static final String FORK = System.getProperty("test.fork", "");
  private static final String OWNER = "zndkeep" + FORK;
  private static final String OTHER = "zndkept" + FORK;

  /** A pattern, and which paths of the copy it fits, as an extended expression of find(1). */
  private static final String[][] PATTERNS = {
    {"*", "copy(/.*)?"},
    {"/", "copy"},
    {"/a/", "copy/a(/.*)?"},
    {"b/", "copy/(.*/)?b(/.*)?"},
    {"*.key", "copy/.*\\.key"},
    {"a/*.html", "copy/a/[^/]*\\.html"},
    {"**/c", "copy/(.*/)?c(/.*)?"},
    {"/b/**", "copy/b/.+"},
    {"[ac]/*.sh", "copy/[ac]/[^/]*\\.sh"},
    {"with\\ blank.html", "copy/(.*/)?with blank\\.html"}
  };

  @TempDir Path top;
  private SystemSshd sshd;

  enum Way {
    ROOT,
    ACCOUNT,
    FILE_SERVICE
  }

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(top, List.of(OWNER, OTHER), List.of());
  }

  @AfterEach
  void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  private static String any(Random random, String... from) {
    return from[random.nextInt(from.length)];
  }

  /** Folders have one letter, files an ending. */
  private static String tree(Random random) {
    StringBuilder script = new StringBuilder("mkdir t; cd t\n");
    String[] folders = new String[ENTRIES];
    folders[0] = ".";
    int made = 1;
    for (int i = 1; i < ENTRIES; i++) {
      String in = folders[random.nextInt(made)];
      if (random.nextInt(3) == 0) {
        String path = in + "/" + any(random, "a", "b", "c", "d");
        script.append("mkdir -p " + path + "\n");
        folders[made++] = path;
      } else {
        String name = any(random, "x", "y", "with blank") + any(random, ".html", ".key", ".sh");
        script.append(": > '" + in + "/" + name + "'\n");
        script.append("chmod " + any(random, "600", "644", "755", "700") + " '");
        script.append(in + "/" + name + "'\n");
      }
    }
    return script.toString();
  }

  private record Lines(String text, String judge) {}

  private static Lines lines(Random random, boolean root) {
    StringBuilder text = new StringBuilder();
    StringBuilder judge = new StringBuilder();
    for (int i = 1 + random.nextInt(5); i > 0; i--) {
      String[] pattern = PATTERNS[random.nextInt(PATTERNS.length)];
      String owner = root ? any(random, "-", OWNER, OTHER) : "-";
      String group = root ? any(random, "-", OWNER, OTHER) : any(random, "-", OWNER);
      String files = any(random, "-", "0600", "0644", "640");
      String folders = any(random, "0755", "0711", "2775", "0750");
      text.append(pattern[0] + "  " + owner + " " + group + "\t" + files + " " + folders + "\n");
      String found = "find copy -regextype posix-extended -regex '" + pattern[1] + "' ";
      String whose = (owner.equals("-") ? "" : owner) + (group.equals("-") ? "" : ":" + group);
      judge.append(whose.isEmpty() ? "" : found + "-exec chown -h " + whose + " {} +\n");
      judge.append(files.equals("-") ? "" : found + "-type f -exec chmod " + files + " {} +\n");
      judge.append(found + "-depth -type d -exec chmod 0" + folders + " {} +\n");
    }
    return new Lines(text.toString(), judge.toString());
  }

  private static String describe(Path tree) throws Exception {
    return SystemSshd.run(
        "sh",
        "-c",
        "cd \"$0\" && find . -printf '%y %m %U %G %P\\0' | sort -z | tr '\\0' '\\n'",
        tree.toString());
  }

  @ParameterizedTest
  @EnumSource(Way.class)
  void itIsWhatGoingThroughTheLinesDoes(Way way) throws Exception {
    Path base = Files.createDirectory(top.resolve("trees"));
    SystemSshd.run("chmod", "755", top.toString(), base.toString());
    long changed = 0;
    try (Connection connection = sshd.open(way == Way.ROOT ? "root" : OWNER);
        FileJournal journal =
            new FileJournal(top.resolve("journal"), "lab-box", JournalRules.USUAL)) {
      Commands commands = way == Way.FILE_SERVICE ? Commands.NONE : connection;
      Asker by = new Asker(connection.whoAmI().uid(), new HashSet<>(connection.whoAmI().gids()));
      for (int i = 0; i < CASES; i++) {
        Random random = new Random(1000L * i + way.ordinal());
        Path master = Files.createDirectory(base.resolve("case-" + i));
        Path tree = master.resolve("t");
        SystemSshd.run("sh", "-c", "cd \"$0\"; " + tree(random), master.toString());
        SystemSshd.run("chown", "-R", OWNER + ":" + OWNER, tree.toString());
        SystemSshd.run("cp", "-a", tree.toString(), master.resolve("copy").toString());
        Lines lines = lines(random, way == Way.ROOT);
        String label = way + " case " + i + ":\n" + lines.text;
        RemotePath keeper = RemotePath.of(tree.toString());
        KeptRights rights = new KeptRights(lines.text);
        assertThat(rights.problems()).as(label).isEmpty();
        KeptWish wish =
            new KeptWish(List.of(new KeptFolder(keeper, rights)), connection.files().names());
        assertThat(wish.unknownNames()).as(label).isEmpty();
        changed += set(connection, commands, journal, wish, by, keeper, label);
        SystemSshd.run("sh", "-ec", "cd \"$0\"; " + lines.judge, master.toString());
        assertThat(describe(tree)).as(label).isEqualTo(describe(master.resolve("copy")));
        assertThat(left(connection, commands, learnt(connection, commands, keeper), by, keeper))
            .as(label)
            .isLessThan(ENTRIES / 2);
        SystemSshd.run("rm", "-rf", master.toString());
      }
    }
    assertThat(changed).isGreaterThan(CASES);
  }

  private static TreePlan plan(
      Connection connection, Commands commands, KeptWish wish, Asker by, RemotePath keeper)
      throws Exception {
    return new TreePlanner(connection.files(), commands)
        .plan(TreeRoots.of(List.of(keeper)), wish, by, false, n -> {}, new Cancellation());
  }

  private static long set(
      Connection connection,
      Commands commands,
      FileJournal journal,
      KeptWish wish,
      Asker by,
      RemotePath keeper,
      String label)
      throws Exception {
    TreePlan plan = plan(connection, commands, wish, by, keeper);
    var outcome =
        new TreeRightsTask(connection.files(), commands, journal)
            .run(
                plan.choose(new HashSet<>(plan.groups()), Set.of()),
                TreeRightsTask.Progress.NONE,
                new Cancellation());
    assertThat(outcome.some()).as(label).isEmpty();
    assertThat(count(plan(connection, commands, wish, by, keeper))).as(label).isZero();
    return outcome.set();
  }

  private static long count(TreePlan plan) {
    return plan.groups().stream()
        .filter(group -> group.fate() == Fate.CHANGED || group.fate() == Fate.NOT_ALLOWED)
        .mapToLong(group -> group.count())
        .sum();
  }

  /** What is learnt of a tree can be read, and explains most of it. */
  private static KeptWish learnt(Connection connection, Commands commands, RemotePath keeper)
      throws Exception {
    KeptLearner learner = new KeptLearner(connection.files().names());
    new KeptLook(connection.files(), commands, learner, new Cancellation())
        .run(keeper, looked -> {});
    KeptRights rights = new KeptRights(learner.text());
    assertThat(rights.problems()).as(learner.text()).isEmpty();
    return new KeptWish(List.of(new KeptFolder(keeper, rights)), connection.files().names());
  }

  private static long left(
      Connection connection, Commands commands, KeptWish wish, Asker by, RemotePath keeper)
      throws Exception {
    return count(plan(connection, commands, wish, by, keeper));
  }
}
