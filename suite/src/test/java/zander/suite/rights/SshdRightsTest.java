package zander.suite.rights;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.Random;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import zander.core.change.PutBack;
import zander.core.change.PutBack.Verdict;
import zander.core.change.rights.PlanGroup;
import zander.core.change.rights.PlanGroup.Fate;
import zander.core.change.rights.TreeOutcome;
import zander.core.change.rights.TreeOutcome.Why;
import zander.core.change.rights.TreePlan;
import zander.core.change.rights.TreePlanner;
import zander.core.change.rights.TreeRightsTask;
import zander.core.change.rights.look.TreeRoots;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.files.RemotePath;
import zander.core.files.WireName;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalRules;
import zander.core.rights.AccessList.Asker;
import zander.core.rights.Mode;
import zander.core.rights.ModeRule;
import zander.core.rights.Rights;
import zander.core.rights.RightsDanger;
import zander.core.rights.RightsStep;
import zander.core.rights.SymbolicMode;
import zander.core.rights.TreeRights;
import zander.core.work.Cancellation;
import zander.suite.SystemSshd;

/**
 * Rights of whole trees, set as one change: as the system's own tools set them on a copy, exactly
 * as the plan said, and back to what they were.
 *
 * <p>Judged: rights set on whole trees, by account and as root, by shell and by file service | the
 * system's {@code chmod} and {@code chown} on a copy | 120 trees ({@code rights.cases})
 */
@Timeout(value = 1800, unit = TimeUnit.SECONDS)
class SshdRightsTest {
  private static final int CASES = Integer.getInteger("rights.cases", 40);
  private static final int ENTRIES = 40;

  @TempDir Path top;
  private SystemSshd sshd;

  enum Way {
    ROOT,
    ACCOUNT,
    FILE_SERVICE
  }

  @BeforeEach
  void start() throws Exception {
    Assumptions.assumeTrue(
        SystemSshd.isPossible() && Files.isExecutable(Path.of("/usr/bin/setfacl")),
        "needs openssh-server and acl, and to be root");
    sshd = new SystemSshd(top, List.of(RightsGround.OWNER, RightsGround.OTHER), List.of());
  }

  @AfterEach
  void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  /** A request, and the commands that do the same. */
  private record Request(TreeRights wanted, String files, String folders) {
    /** What has the owner is not given to it anew, which would clear set-id bits all the same. */
    String script(String tree) {
      String both = "find " + tree + " \\( -type f -o -type d \\) ";
      String uid = wanted.uid().isPresent() ? "" + wanted.uid().getAsInt() : "";
      String gid = wanted.gid().isPresent() ? "" + wanted.gid().getAsInt() : "";
      String not =
          "\\( "
              + (uid.isEmpty() ? "-false" : "! -uid " + uid)
              + (gid.isEmpty() ? "" : " -o ! -gid " + gid)
              + " \\) -exec chown -h ";
      return both
          + not
          + uid
          + (gid.isEmpty() ? "" : ":" + gid)
          + " {} +\n"
          + (files.isEmpty() ? "" : "find " + tree + " -type f -exec chmod " + files + " {} +\n")
          + (folders.isEmpty()
              ? ""
              : "find " + tree + " -depth -type d -exec chmod " + folders + " {} +\n");
    }
  }

  private static final String[] SYMBOLIC = {
    "u=rwX,go=rX",
    "a+X",
    "g=u",
    "go-w",
    "o=",
    "u+s",
    "g+s,o-rwx",
    "+t",
    "a-x+X",
    "ug+rw,o=r",
    "u-w,a+r",
    "g-s",
    "u=rwx,g=rx,o="
  };

  private static String modeRule(Random random, List<ModeRule> rule) {
    switch (random.nextInt(4)) {
      case 0 -> {
        rule.add(null);
        return "";
      }
      case 1 -> {
        Mode mode = new Mode(random.nextInt(010000));
        rule.add(new ModeRule.Exact(mode, false));
        return "0" + mode.octal();
      }
      case 2 -> {
        rule.add(new ModeRule.Exact(new Mode(0640), true));
        return "u=rwX,g=rX,o=,a-st";
      }
      default -> {
        String text = SYMBOLIC[random.nextInt(SYMBOLIC.length)];
        rule.add(new ModeRule.Symbolic(SymbolicMode.parse(text), 022));
        return text;
      }
    }
  }

  private static Request request(Random random, int uid, int gid, boolean root) {
    List<ModeRule> rules = new ArrayList<>();
    String files = modeRule(random, rules);
    // What is meant for files alone clears set-id bits, which chmod leaves on folders.
    String folders = files.startsWith("u=rwX,g=rX,o=,a-st") ? "" : modeRule(random, rules);
    if (folders.startsWith("u=rwX,g=rX,o=,a-st")) {
      folders = "u=rwX,g=rX,o=,a-st";
    }
    boolean owns = root && random.nextInt(3) == 0;
    boolean groups = random.nextInt(3) == 0;
    OptionalInt toUid = owns ? OptionalInt.of(uid) : OptionalInt.empty();
    OptionalInt toGid = groups ? OptionalInt.of(gid) : OptionalInt.empty();
    return new Request(
        new TreeRights(toUid, toGid, rules.get(0), rules.size() > 1 ? rules.get(1) : null),
        files,
        folders);
  }

  private static final Asker ROOT = new Asker(0, Set.of(0));

  @ParameterizedTest
  @EnumSource(Way.class)
  void itIsWhatTheSystemsToolsDo(Way way) throws Exception {
    String account = way == Way.ROOT ? "root" : RightsGround.OWNER;
    Path base = Files.createDirectory(top.resolve("trees"));
    SystemSshd.run("chmod", "755", top.toString(), base.toString());
    long changed = 0;
    try (Connection connection = sshd.open(account);
        FileJournal journal =
            new FileJournal(top.resolve("journal"), "lab-box", JournalRules.USUAL)) {
      Commands commands = way == Way.FILE_SERVICE ? Commands.NONE : connection;
      Asker by =
          way == Way.ROOT
              ? ROOT
              : new Asker(connection.whoAmI().uid(), new HashSet<>(connection.whoAmI().gids()));
      TreeRightsTask task = new TreeRightsTask(connection.files(), commands, journal);
      Connection root = way == Way.ROOT ? connection : sshd.open("root");
      // What an account can give away it cannot always have back.
      PutBack putBack = putBack(connection, commands, journal);
      PutBack byRoot = putBack(root, root, journal);
      int uid = Integer.parseInt(SystemSshd.run("id", "-u", RightsGround.OTHER).strip());
      int gid = Integer.parseInt(SystemSshd.run("id", "-g", RightsGround.OWNER).strip());
      for (int i = 0; i < CASES; i++) {
        Random random = new Random(1000L * i + way.ordinal());
        Path master = Files.createDirectory(base.resolve("case-" + i));
        RightsGround.run(master, RightsGround.script(random, ENTRIES));
        Path tree = master.resolve("t");
        SystemSshd.run("cp", "-a", tree.toString(), master.resolve("copy").toString());
        String before = RightsGround.describe(tree);
        Request request = request(random, uid, gid, way == Way.ROOT);
        String label = way + " case " + i + ": " + request;

        TreeRoots roots = TreeRoots.of(List.of(RemotePath.of(tree.toString())));
        TreePlan plan =
            new TreePlanner(connection.files(), commands)
                .plan(roots, request.wanted, by, false, n -> {}, new Cancellation());
        Map<String, RightsStep> planned = planned(plan);
        TreeOutcome outcome =
            task.run(
                plan.choose(new HashSet<>(plan.groups()), Set.of()),
                TreeRightsTask.Progress.NONE,
                new Cancellation());
        assertThat(outcome.some()).as(label).allMatch(left -> left.why() == Why.OUT_OF_REACH);
        assertThat(outcome.set() + outcome.some().size()).as(label).isEqualTo(planned.size());
        Path script = master.resolve("judge.sh");
        Files.writeString(script, request.script("copy"));
        SystemSshd.run(
            "sh",
            "-c",
            "cd \"$0\"; runuser -u \"$1\" -- sh judge.sh 2> judge.err || true",
            master.toString(),
            account);
        String after = RightsGround.describe(tree);
        assertThat(after.lines())
            .as(label)
            .containsExactlyInAnyOrderElementsOf(
                RightsGround.judged(
                    before, RightsGround.describe(master.resolve("copy")), below(tree, planned)));
        assertThat(rightsOf(tree, planned.keySet())).as(label).isEqualTo(afters(planned));

        changed += planned.size();
        if (!planned.isEmpty()) {
          boolean oneWay =
              planned.values().stream().anyMatch(step -> RightsDanger.ONE_WAY.isIn("", step, by));
          assertThat((oneWay ? byRoot : putBack).run(journal.entries().get(0), false))
              .as(label)
              .isEqualTo(Verdict.READY);
        }
        assertThat(RightsGround.describe(tree).lines())
            .as(label)
            .containsExactlyElementsOf(before.lines().toList());
        SystemSshd.run("rm", "-rf", master.toString());
      }
      root.close();
    }
    assertThat(changed).isGreaterThan(CASES);
  }

  private static PutBack putBack(Connection by, Commands commands, FileJournal journal) {
    return new PutBack(by.files(), commands, journal, by.whoAmI().home());
  }

  private static Map<String, RightsStep> planned(TreePlan plan) throws Exception {
    Map<String, RightsStep> planned = new HashMap<>();
    for (PlanGroup group : plan.groups()) {
      if (group.fate() == Fate.CHANGED) {
        List<TreePlan.Planned> entries = plan.entriesOf(group, Integer.MAX_VALUE);
        assertThat(entries).hasSize((int) group.count());
        entries.forEach(one -> planned.put(one.path().wire(), one.step()));
      }
    }
    return planned;
  }

  private static Set<String> below(Path tree, Map<String, RightsStep> planned) {
    Set<String> below = new HashSet<>();
    int from = tree.toString().length() + 1;
    planned.keySet().stream()
        .filter(path -> path.length() > from)
        .forEach(path -> below.add(path.substring(from)));
    return below;
  }

  private static Map<String, Rights> afters(Map<String, RightsStep> planned) {
    Map<String, Rights> afters = new HashMap<>();
    planned.forEach((path, step) -> afters.put(path, step.after()));
    return afters;
  }

  private static Map<String, Rights> rightsOf(Path tree, Set<String> paths) throws Exception {
    Map<String, Rights> rights = new HashMap<>();
    String all = SystemSshd.run("find", tree.toString(), "-printf", "%m %U %G %p\\0");
    for (String one : all.split("\0")) {
      String[] fields = WireName.fromText(one).split(" ", 4);
      if (fields.length == 4 && paths.contains(fields[3])) {
        rights.put(
            fields[3],
            new Rights(
                Integer.parseInt(fields[1]),
                Integer.parseInt(fields[2]),
                new Mode(Integer.parseInt(fields[0], 8))));
      }
    }
    return rights;
  }
}
