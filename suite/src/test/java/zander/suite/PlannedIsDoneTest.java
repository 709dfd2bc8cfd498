package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;
import static zander.core.transfer.rules.ConflictPrompt.For.THIS;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.transfer.Transfer;
import zander.core.transfer.compare.TransferPlan;
import zander.core.transfer.compare.TransferPlan.Deed;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.resume.ResumeLog;
import zander.core.transfer.rules.ConflictPrompt;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.rules.TransferRules;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.work.Cancellation;

/**
 * Pairs of made-up trees: what the plan says of each entry is what is done with it, as the disk
 * shows before and after.
 *
 * <p>Judged: what a plan says of each entry, against what is done: six rules, up, down and across |
 * the disk before and after | 100 pairs of trees × 18 ({@code plan.pairs})
 */
@Timeout(value = 300, unit = TimeUnit.SECONDS)
class PlannedIsDoneTest {
  private static final int PAIRS = Integer.getInteger("plan.pairs", 100);
  private static final String ACCOUNT = "zndplan";
  private static final String[] NAMES = {"a", "a.txt", "a-2.txt", "b", "page.html", "in", "in2"};

  /** The first two are of one size. */
  private static final String[] CONTENTS = {"level 1", "level 2", "another level", ""};

  private static final long[] TIMES = {1_700_000_000L, 1_700_000_001L, 1_600_000_000L, 0, -1_000};
  private static final String[] TARGETS = {"a", "../elsewhere"};
  private static final Set<Deed> NOTHING_HAPPENS =
      EnumSet.of(
          Deed.IS_SAME, Deed.STAYS, Deed.ONLY_THERE, Deed.LEFT_OUT, Deed.CANNOT, Deed.IS_ASKED);

  enum Route {
    UP,
    DOWN,
    ACROSS
  }

  @TempDir static Path folder;
  private static SystemSshd sshd;
  private static Connection connection;
  private static int runs;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of(ACCOUNT), List.of());
    connection = sshd.open(ACCOUNT);
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      connection.close();
      sshd.close();
    }
  }

  private static Stream<Arguments> runs() {
    return Stream.of(Route.values())
        .flatMap(
            route ->
                Stream.of(ConflictRule.values())
                    .filter(rule -> rule != ConflictRule.ASK)
                    .map(rule -> Arguments.of(route, rule)));
  }

  /** Fills a folder; in the target's, some folders let nothing in. */
  private static void fill(Path at, Random random, int depth, boolean target) throws IOException {
    Files.createDirectories(at);
    for (String name : NAMES) {
      Path path = at.resolve(name);
      switch (random.nextInt(depth > 1 ? 5 : 7)) {
        case 0, 1 -> {
          Files.writeString(path, CONTENTS[random.nextInt(CONTENTS.length)]);
          long time = TIMES[random.nextInt(TIMES.length)];
          Files.setLastModifiedTime(path, FileTime.from(time, TimeUnit.SECONDS));
        }
        case 2 -> Files.createSymbolicLink(path, Path.of(TARGETS[random.nextInt(2)]));
        case 5 -> fill(path, random, depth + 1, target);
        default -> {
          // There is none.
        }
      }
    }
    if (target && depth > 0 && random.nextInt(6) == 0) {
      Files.setPosixFilePermissions(at, PosixFilePermissions.fromString("r-xr-xr-x"));
    }
  }

  private static Source source(Route route, Path at) {
    return route == Route.UP ? new LocalEndpoint(at) : remote(at);
  }

  private static Target target(Route route, Path at) {
    return route == Route.DOWN ? new LocalEndpoint(at) : remote(at);
  }

  private static RemoteEndpoint remote(Path at) {
    return new RemoteEndpoint(
        new SharedConnectionChannels(() -> connection),
        RemotePath.of(at.toString()),
        Journal.NONE,
        null);
  }

  /** All below, by their paths: what kind, what content or target, and when changed. */
  private static Map<String, String> look(Path top) throws IOException {
    Map<String, String> all = new TreeMap<>();
    try (Stream<Path> paths = Files.walk(top)) {
      for (Path path : (Iterable<Path>) paths::iterator) {
        String is;
        if (Files.isSymbolicLink(path)) {
          is = "link to " + Files.readSymbolicLink(path);
        } else if (Files.isDirectory(path, LinkOption.NOFOLLOW_LINKS)) {
          is = "folder";
        } else {
          is =
              "file of "
                  + Files.getLastModifiedTime(path).to(TimeUnit.SECONDS)
                  + ": "
                  + Files.readString(path);
        }
        all.put(top.relativize(path).toString(), is);
      }
    }
    return all;
  }

  @ParameterizedTest
  @MethodSource("runs")
  void entryByEntry(Route route, ConflictRule rule) throws Exception {
    Path from = folder.resolve(ACCOUNT + "/from-" + ++runs);
    Path to = folder.resolve(ACCOUNT + "/to-" + runs);
    Random random = new Random(runs);
    List<String> names = new ArrayList<>();
    for (int i = 0; i < PAIRS; i++) {
      names.add("pair-" + i);
      fill(from.resolve("pair-" + i), random, 0, false);
      fill(to.resolve("pair-" + i), random, 0, true);
    }
    SystemSshd.run("chown", "-Rh", ACCOUNT + ":", from.toString(), to.toString());
    Map<String, String> coming = look(from);
    Map<String, String> before = look(to);
    TransferPlan.Result plan =
        new TransferPlan(
                source(route, from), target(route, to), TransferRules.of(rule), new Cancellation())
            .make(names, soFar -> {});
    assertThat(plan.complete()).isTrue();
    Progress done =
        new Transfer(
                source(route, from),
                target(route, to),
                TransferRules.of(rule),
                question -> new ConflictPrompt.Answer(ConflictRule.SKIP, THIS),
                new Cancellation(),
                ResumeLog.NONE)
            .run(names);
    compare(plan, coming, before, look(to));
    long cannot = plan.rows().stream().filter(row -> row.deed() == Deed.CANNOT).count();
    assertThat(done.problems().isEmpty()).as("what cannot be done is told").isEqualTo(cannot == 0);
    SystemSshd.run("rm", "-rf", from.toString(), to.toString());
  }

  private static void compare(
      TransferPlan.Result plan,
      Map<String, String> coming,
      Map<String, String> before,
      Map<String, String> after) {
    Map<String, Deed> deeds = new HashMap<>();
    plan.rows().forEach(row -> deeds.put(row.path(), row.deed()));
    Set<String> all = new TreeSet<>(coming.keySet());
    all.addAll(before.keySet());
    List<String> wrong = new ArrayList<>();
    Map<String, Integer> beside = new HashMap<>();
    int arrives = 0;
    for (String path : all) {
      Deed deed = deeds.getOrDefault(path, Deed.IS_SAME);
      String is = after.get(path);
      String was = before.get(path);
      String comes = coming.get(path);
      boolean right =
          switch (deed) {
            case ARRIVES -> was == null && comes.equals(is);
            case REPLACES -> was != null && comes.equals(is);
            case IS_COMPARED -> content(comes).equals(content(is));
            case BESIDE -> was.equals(is);
            default -> NOTHING_HAPPENS.contains(deed) && java.util.Objects.equals(was, is);
          };
      if (!right) {
        wrong.add(path + " " + deed + ": comes " + comes + "; was " + was + "; is " + is);
      }
      arrives += deed == Deed.ARRIVES ? 1 : 0;
      if (deed == Deed.BESIDE) {
        beside.merge(place(path) + whole(coming, path), 1, Integer::sum);
      }
    }
    assertThat(wrong).isEmpty();
    Map<String, Integer> made = new HashMap<>();
    for (String path : after.keySet()) {
      String above = path.isEmpty() ? "" : place(path).replaceFirst("/$", "");
      boolean isTop = before.containsKey(above) || deeds.get(above) == Deed.ARRIVES;
      if (!before.containsKey(path) && deeds.get(path) != Deed.ARRIVES && isTop) {
        made.merge(place(path) + whole(after, path), 1, Integer::sum);
      }
    }
    assertThat(made).as("put beside").isEqualTo(beside);
    assertThat(arrives).isPositive();
  }

  /** What it is, and all below it where it is a folder. */
  private static String whole(Map<String, String> all, String path) {
    StringBuilder whole = new StringBuilder(all.get(path));
    all.forEach(
        (below, is) -> {
          if (below.startsWith(path + "/")) {
            whole.append(", ").append(below.substring(path.length())).append(' ').append(is);
          }
        });
    return whole.toString();
  }

  private static String place(String path) {
    return path.substring(0, path.lastIndexOf('/') + 1);
  }

  private static String content(String is) {
    return is.substring(is.indexOf(':') + 1);
  }
}
