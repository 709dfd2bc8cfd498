package zander.suite.rights;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import zander.core.change.PutBack;
import zander.core.change.PutBack.Verdict;
import zander.core.change.Recovery;
import zander.core.change.rights.AccessListChange.Entry;
import zander.core.change.rights.AccessListTree;
import zander.core.connect.Connection;
import zander.core.connect.command.Commands;
import zander.core.connect.command.ExecResult;
import zander.core.connect.command.Pipe;
import zander.core.connect.command.ServerTools;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalRules;
import zander.core.phrase.FileStep;
import zander.core.work.Cancellation;
import zander.suite.SystemSshd;

/**
 * Access lists of whole trees.
 *
 * <p>Judged: an entry of the access lists of a whole tree given, taken away and put back, by
 * account and as root | the system's {@code setfacl} on a copy | 60 trees ({@code lists.cases})
 */
class AccessListTreeTest {
  private static final int CASES = Integer.getInteger("lists.cases", 30);
  private static final int ENTRIES = 40;

  @TempDir Path top;
  private SystemSshd sshd;

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

  private static String any(Random random, String... from) {
    return from[random.nextInt(from.length)];
  }

  private static Entry entry(Random random) throws Exception {
    boolean group = random.nextInt(3) == 0;
    String name = any(random, RightsGround.OTHER, RightsGround.OWNER, "games");
    String id = SystemSshd.run("id", group ? "-g" : "-u", name).strip();
    return new Entry(random.nextInt(3) == 0, group, Integer.parseInt(id));
  }

  /**
   * What takes an entry away leaves those alone that have none.
   *
   * @param opened whether each is opened before: what cannot be is left
   */
  private static String judge(Entry entry, String letters, boolean opened) {
    String word = (entry.forNew() ? "d:" : "") + (entry.group() ? "g:" : "u:") + entry.id();
    String line =
        (entry.forNew() ? "default:" : "") + (entry.group() ? "group:" : "user:") + entry.id();
    String find =
        "find copy "
            + (opened ? "-readable " : "")
            + (entry.forNew() ? "-type d" : "\\( -type f -o -type d \\)");
    return letters != null
        ? find + " -exec setfacl -m " + word + ":" + letters + " {} +"
        : find
            + " -exec sh -c 'for f; do getfacl -np \"$f\" | grep -q \"^"
            + line
            + ":\" && setfacl -x "
            + word
            + " \"$f\"; done' x {} +";
  }

  @ParameterizedTest
  @ValueSource(strings = {"root", "account"})
  void itIsWhatTheSystemsToolDoes(String who) throws Exception {
    String account = who.equals("root") ? "root" : RightsGround.OWNER;
    Path base = Files.createDirectory(top.resolve("trees"));
    SystemSshd.run("chmod", "755", top.toString(), base.toString());
    long changed = 0;
    try (Connection connection = sshd.open(account);
        FileJournal journal =
            new FileJournal(top.resolve("journal"), "lab-box", JournalRules.USUAL)) {
      AccessListTree lists = new AccessListTree(connection.files(), connection, journal);
      PutBack putBack =
          new PutBack(connection.files(), connection, journal, connection.whoAmI().home());
      for (int i = 0; i < CASES; i++) {
        Random random = new Random(1000L * i + who.length());
        Path master = Files.createDirectory(base.resolve("case-" + i));
        RightsGround.run(master, RightsGround.script(random, ENTRIES));
        Path tree = master.resolve("t");
        // Who is in no group of an entry loses its set-group-ID bit with any list that is set.
        SystemSshd.run("sh", "-c", "find \"$0\" ! -type l -exec chmod g-s {} +", tree.toString());
        SystemSshd.run("cp", "-a", tree.toString(), master.resolve("copy").toString());
        String before = RightsGround.describe(tree);
        Entry entry = entry(random);
        String letters = any(random, "r", "rX", "rwX", "-", "w", null);
        String label = who + " case " + i + ": " + entry + " " + letters;

        AccessListTree.Preview preview =
            lists.look(
                new AccessListTree.Wanted(RemotePath.of(tree.toString()), entry, letters),
                read -> {},
                new Cancellation());
        AccessListTree.Outcome outcome = lists.set(preview, done -> {}, new Cancellation());
        Files.writeString(master.resolve("judge.sh"), judge(entry, letters, preview.turnable()));
        SystemSshd.run(
            "sh",
            "-c",
            "cd \"$0\"; runuser -u \"$1\" -- sh judge.sh 2> judge.err || true",
            master.toString(),
            account);
        assertThat(RightsGround.describe(tree).lines())
            .as(label)
            .containsExactlyElementsOf(
                RightsGround.describe(master.resolve("copy")).lines().toList());
        assertThat(outcome.set() + outcome.left()).as(label).isEqualTo(preview.count());
        if (account.equals("root")) {
          assertThat(outcome.left()).as(label).isZero();
        }
        changed += outcome.set();
        assertThat(putBack.run(journal.entries().get(0), false)).as(label).isEqualTo(Verdict.READY);
        assertThat(RightsGround.describe(tree).lines())
            .as(label)
            .containsExactlyElementsOf(before.lines().toList());
        SystemSshd.run("rm", "-rf", master.toString());
      }
    }
    assertThat(changed).isGreaterThan(CASES);
  }

  /** Between the look and the change, the account that owns the folder turns what is in it. */
  @Test
  void rootIsNotLedElsewhere() throws Exception {
    Path home = top.resolve(RightsGround.OWNER);
    Path outside = Files.writeString(top.resolve("outside"), "closed\n");
    SystemSshd.run(
        "sh",
        "-ec",
        "cd \"$0\"; mkdir -p t/in; : > t/a; : > t/in/b; : > t/in/c; mkdir other; : > other/c;"
            + " chown -R "
            + RightsGround.OWNER
            + ": .",
        home.toString());
    String before = SystemSshd.run("getfacl", "-np", outside.toString());
    String other = SystemSshd.run("getfacl", "-npR", home.resolve("other").toString());
    try (Connection root = sshd.open("root");
        FileJournal journal =
            new FileJournal(top.resolve("journal"), "lab-box", JournalRules.USUAL)) {
      AccessListTree lists = new AccessListTree(root.files(), root, journal);
      int games = root.files().names().uidOf("games").orElseThrow();
      RemotePath tree = RemotePath.of(home + "/t");
      var preview =
          lists.look(
              new AccessListTree.Wanted(tree, new Entry(false, false, games), "rwX"),
              read -> {},
              new Cancellation());
      assertThat(preview.count()).isEqualTo(5);
      SystemSshd.run(
          "sh",
          "-ec",
          "cd \"$0\"; rm t/a; ln -s \"$1\" t/a; mv t/in moved; ln -s ../other t/in;"
              + " rm moved/b; mkfifo moved/b",
          home.toString(),
          outside.toString());
      var outcome = lists.set(preview, done -> {}, new Cancellation());
      assertThat(outcome.set()).isEqualTo(1);
      assertThat(outcome.left()).isEqualTo(4);
    }
    assertThat(SystemSshd.run("getfacl", "-np", outside.toString())).isEqualTo(before);
    assertThat(SystemSshd.run("getfacl", "-npR", home.resolve("other").toString()))
        .isEqualTo(other);
  }

  /** A server whose shell fails once some lists are set. */
  private record Failing(Commands commands, AtomicInteger left) implements Commands {
    @Override
    public boolean hasShell() {
      return commands.hasShell();
    }

    @Override
    public ExecResult stream(String script, Output output, Cancellation stop) throws IOException {
      if (script.contains("setfacl") && left.getAndDecrement() == 0) {
        throw new RemoteFailure(Reason.LINE_LOST, FileStep.RUN_A_COMMAND, null, "", null);
      }
      return commands.stream(script, output, stop);
    }

    @Override
    public Pipe pipe(String script) throws IOException {
      return commands.pipe(script);
    }

    @Override
    public ServerTools tools() throws IOException {
      return commands.tools();
    }
  }

  @Test
  void whatWasCutOffIsTakenBack() throws Exception {
    Path tree = top.resolve(RightsGround.OWNER).resolve("t");
    SystemSshd.run(
        "sh",
        "-ec",
        "mkdir \"$0\"; cd \"$0\"; seq 1200 | xargs touch; setfacl -m u:daemon:r 7;"
            + " chown -R "
            + RightsGround.OWNER
            + ": .",
        tree.toString());
    String before = RightsGround.describe(tree);
    try (Connection own = sshd.open(RightsGround.OWNER);
        FileJournal journal =
            new FileJournal(top.resolve("journal"), "lab-box", JournalRules.USUAL)) {
      Commands failing = new Failing(own, new AtomicInteger(2));
      AccessListTree lists = new AccessListTree(own.files(), failing, journal);
      int games = own.files().names().uidOf("games").orElseThrow();
      var preview =
          lists.look(
              new AccessListTree.Wanted(
                  RemotePath.of(tree.toString()), new Entry(false, false, games), "rX"),
              read -> {},
              new Cancellation());
      List<Long> told = new ArrayList<>();
      assertThatThrownBy(() -> lists.set(preview, told::add, new Cancellation()))
          .isInstanceOf(RemoteFailure.class);
      assertThat(told).containsExactly(500L, 1000L);
      assertThat(RightsGround.describe(tree)).isNotEqualTo(before);
      assertThat(journal.unfinished()).hasSize(1);
      Recovery recovery = new Recovery(own.files(), own, journal);
      recovery.undo(recovery.look(journal.unfinished().get(0)));
      assertThat(journal.unfinished()).isEmpty();
    }
    assertThat(RightsGround.describe(tree)).isEqualTo(before);
  }
}
