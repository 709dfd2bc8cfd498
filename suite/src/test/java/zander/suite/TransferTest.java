package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.HoldingFolder;
import zander.core.change.PutBack;
import zander.core.connect.Connection;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.Journal;
import zander.core.journal.JournalRules;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.progress.Progress.Problem;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictPrompt;
import zander.core.transfer.rules.ConflictPrompt.Answer;
import zander.core.transfer.rules.ConflictPrompt.For;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.server.ServerChannels;
import zander.core.work.Cancellation;
import zander.core.work.Workers;
import zander.standin.server.Relay;
import zander.standin.world.Caller;
import zander.standin.world.OpenFile;
import zander.standin.world.World;

/** Questions, stops, full disks, lies and cuts in a transfer; the rest always goes on. */
class TransferTest {
  private static final String TRIAL = "/home/warden/trial";

  @TempDir Path folder;
  private Riverside riverside;
  private World world;
  private Path local;
  private Connection connection;

  @BeforeEach
  void start() throws IOException {
    riverside = new Riverside(folder);
    world = riverside.demo.server("lab-box").machine().world();
    local = Files.createDirectory(folder.resolve("local"));
    connection = riverside.open("lab-box");
  }

  @AfterEach
  void stop() {
    connection.close();
    riverside.close();
  }

  private RemoteEndpoint remote() {
    return new RemoteEndpoint(connection.files(), RemotePath.of(TRIAL), Journal.NONE);
  }

  private RemoteEndpoint remote(Journal journal) {
    return new RemoteEndpoint(
        ServerChannels.of(connection.files()),
        RemotePath.of(TRIAL),
        journal,
        connection.whoAmI().home());
  }

  private Transfer up(ConflictRule rule, ConflictPrompt talk) {
    return new Transfer(new LocalEndpoint(local), remote(), rule, talk, new Cancellation());
  }

  private Transfer down(ConflictRule rule, ConflictPrompt talk) {
    return new Transfer(remote(), new LocalEndpoint(local), rule, talk, new Cancellation());
  }

  private String there(String path) throws IOException {
    OpenFile file = world.open(Caller.ROOT, TRIAL + "/" + path, World.Open.READ);
    return new String(file.read(0, (int) file.size()));
  }

  private void makeThere(String path, String content) throws IOException {
    world
        .open(Caller.ROOT, TRIAL + "/" + path, new World.Open(false, true, true, false, true, 0644))
        .write(0, content.getBytes(), 0, content.length());
    world.chown(Caller.ROOT, TRIAL + "/" + path, 1004, 1004, false);
  }

  private void assertNoParts() throws IOException {
    assertThat(world.list(Caller.ROOT, TRIAL)).noneMatch(name -> name.contains(".zander-"));
    try (var files = Files.walk(local)) {
      assertThat(files.map(Path::toString)).noneMatch(name -> name.contains(".zander-"));
    }
  }

  private int held() throws IOException {
    int held = 0;
    String holding = "/home/warden/" + HoldingFolder.NAME;
    for (String place : world.list(Caller.ROOT, holding)) {
      held += world.list(Caller.ROOT, holding + "/" + place).size();
    }
    return held;
  }

  @Test
  void asksForEachNameThatIsTaken() throws IOException {
    for (String name : new String[] {"a.txt", "b.txt", "c.txt"}) {
      Files.writeString(local.resolve(name), "mine");
      makeThere(name, "theirs, longer");
    }
    world.chmod(Caller.ROOT, TRIAL + "/a.txt", 0600);
    List<String> asked = Collections.synchronizedList(new ArrayList<>());
    Progress progress =
        up(
                ConflictRule.ASK,
                question -> {
                  asked.add(question.path());
                  assertThat(question.coming().size()).isEqualTo(4);
                  assertThat(question.there().size()).isEqualTo(14);
                  assertThat(question.there().owner()).isEqualTo("warden:warden");
                  return new Answer(
                      question.path().endsWith("a.txt")
                          ? ConflictRule.REPLACE
                          : question.path().endsWith("b.txt")
                              ? ConflictRule.SKIP
                              : ConflictRule.KEEP_BOTH,
                      For.THIS);
                })
            .run(List.of("a.txt", "b.txt", "c.txt"));
    assertThat(asked).hasSize(3);
    assertThat(progress.phase()).isEqualTo(Phase.DONE);
    assertThat(progress.skipped()).isEqualTo(1);
    assertThat(there("a.txt")).isEqualTo("mine");
    assertThat(there("b.txt")).isEqualTo("theirs, longer");
    assertThat(there("c.txt")).isEqualTo("theirs, longer");
    assertThat(there("c-2.txt")).isEqualTo("mine");
    assertNoParts();
  }

  @Test
  void takesOneAnswerForTheRest() throws IOException {
    List<String> names = new ArrayList<>();
    for (int i = 0; i < 30; i++) {
      names.add("reading-" + i);
      Files.writeString(local.resolve("reading-" + i), "new");
      makeThere("reading-" + i, "older");
    }
    List<String> asked = Collections.synchronizedList(new ArrayList<>());
    up(
            ConflictRule.ASK,
            question -> {
              asked.add(question.path());
              return new Answer(ConflictRule.REPLACE, For.REST);
            })
        .run(names);
    assertThat(asked).hasSize(1);
    for (String name : names) {
      assertThat(there(name)).isEqualTo("new");
    }
  }

  @Test
  void leavesTheRightsOfFoldersThatWereThere() throws IOException {
    Files.createDirectories(local.resolve("site/new"));
    Files.writeString(local.resolve("site/new/one.txt"), "1");
    Files.setAttribute(local.resolve("site"), "unix:mode", 0700);
    Files.setAttribute(local.resolve("site/new"), "unix:mode", 0750);
    world.mkdir(Caller.ROOT, TRIAL + "/site", 0777);
    world.chmod(Caller.ROOT, TRIAL + "/site", 0777);
    Progress progress = up(ConflictRule.ASK, PathContract.NEVER_ASKED).run(List.of("site"));
    assertThat(progress.problems()).isEmpty();
    assertThat(world.stat(Caller.ROOT, TRIAL + "/site").mode()).isEqualTo(0777);
    assertThat(world.stat(Caller.ROOT, TRIAL + "/site/new").mode()).isEqualTo(0750);
    assertThat(there("site/new/one.txt")).isEqualTo("1");
  }

  @Test
  void neverPutsAFileInThePlaceOfAFolder() throws IOException {
    Files.writeString(local.resolve("site"), "a file");
    world.mkdir(Caller.ROOT, TRIAL + "/site", 0755);
    Files.createDirectories(local.resolve("img"));
    Files.writeString(local.resolve("img/one.svg"), "<svg/>");
    makeThere("img", "a file there");
    Progress progress =
        up(
                ConflictRule.REPLACE,
                question -> {
                  assertThat(question.mayReplace()).isFalse();
                  return new Answer(ConflictRule.KEEP_BOTH, For.THIS);
                })
            .run(List.of("site", "img"));
    assertThat(progress.problems()).isEmpty();
    assertThat(there("site-2")).isEqualTo("a file");
    assertThat(there("img")).isEqualTo("a file there");
    assertThat(there("img-2/one.svg")).isEqualTo("<svg/>");
  }

  @Test
  void stopsWithoutHalfAFile() throws IOException {
    byte[] large = new byte[24 << 20];
    new Random(1).nextBytes(large);
    Files.write(local.resolve("backup.bin"), large);
    Files.writeString(local.resolve("question.txt"), "mine");
    makeThere("question.txt", "theirs");
    Cancellation cancellation = new Cancellation();
    Transfer transfer =
        new Transfer(
            new LocalEndpoint(local),
            remote(),
            ConflictRule.ASK,
            question -> {
              cancellation.stop();
              return null;
            },
            cancellation);
    Progress progress = transfer.run(List.of("backup.bin", "question.txt"));
    assertThat(progress.phase()).isEqualTo(Phase.STOPPED);
    assertThat(there("question.txt")).isEqualTo("theirs");
    if (world.list(Caller.ROOT, TRIAL).contains("backup.bin")) {
      assertThat(world.stat(Caller.ROOT, TRIAL + "/backup.bin").size()).isEqualTo(large.length);
    }
    assertNoParts();
  }

  /** All loads may be under way when a slow server is told to stop: they must not all come. */
  @Test
  void aStopDoesNotWaitForAllThatIsUnderWay() throws Exception {
    List<String> names = new ArrayList<>();
    for (int i = 0; i < 1500; i++) {
      names.add("reading-" + i);
      Files.writeString(local.resolve("reading-" + i), "level 2.48");
      makeThere("reading-" + i, "old");
    }
    riverside.demo.server("lab-box").faults().setDelay(Duration.ofMillis(2));
    Cancellation cancellation = new Cancellation();
    try (FileJournal journal =
            new FileJournal(folder.resolve("journal"), "lab-box", JournalRules.USUAL);
        Workers other = new Workers("transfer", 1)) {
      Transfer transfer =
          new Transfer(
              new LocalEndpoint(local),
              remote(journal),
              ConflictRule.REPLACE,
              PathContract.NEVER_ASKED,
              cancellation);
      var running = other.submit(() -> transfer.run(names));
      while (transfer.progress().files() == 0 && !running.isDone()) {
        Thread.onSpinWait();
      }
      cancellation.stop();
      Progress progress = running.get();
      riverside.demo.server("lab-box").faults().setDelay(Duration.ZERO);
      assertThat(progress.phase()).isEqualTo(Phase.STOPPED);
      assertThat(progress.problems()).isEmpty();
      int arrived = 0;
      for (String name : names) {
        assertThat(there(name)).isIn("old", "level 2.48");
        arrived += there(name).equals("old") ? 0 : 1;
      }
      assertThat(progress.files()).isEqualTo(arrived);
      assertThat(arrived).isBetween(1, 1400);
      assertThat(journal.unfinished()).isEmpty();
      // Of what did not arrive, nothing is held either.
      assertThat(held()).isEqualTo(arrived);
    }
    assertNoParts();
  }

  @Test
  void saysWhatCouldNotBeWrittenAndGoesOn() throws IOException {
    world.mkdir(Caller.ROOT, TRIAL + "/closed", 0755);
    Files.createDirectories(local.resolve("closed"));
    Files.writeString(local.resolve("closed/in.txt"), "x");
    Files.writeString(local.resolve("open.txt"), "x");
    Progress progress =
        up(ConflictRule.ASK, PathContract.NEVER_ASKED).run(List.of("closed", "open.txt"));
    assertThat(progress.phase()).isEqualTo(Phase.DONE);
    assertThat(progress.problems())
        .extracting(Problem::path)
        .anyMatch(p -> p.endsWith("closed/in.txt"));
    assertThat(progress.problems())
        .extracting(Problem::why)
        .anyMatch(w -> w.contains("no permission"));
    assertThat(there("open.txt")).isEqualTo("x");
  }

  @Test
  void tellsAFullDiskAndKeepsWhatWasThere() throws IOException {
    makeThere("levels.bin", "old and whole");
    byte[] content = new byte[1 << 20];
    new Random(3).nextBytes(content);
    Files.write(local.resolve("levels.bin"), content);
    world.setFree(300_000);
    Progress progress =
        up(ConflictRule.REPLACE, PathContract.NEVER_ASKED).run(List.of("levels.bin"));
    assertThat(progress.problems())
        .extracting(Problem::why)
        .containsExactly("the server's disk is full");
    assertThat(there("levels.bin")).isEqualTo("old and whole");
    assertNoParts();
  }

  @Test
  void aFileThatALinkReplacesIsHeld() throws IOException {
    makeThere("today.txt", "level 2.48");
    Files.createSymbolicLink(local.resolve("today.txt"), Path.of("other.txt"));
    try (FileJournal journal =
        new FileJournal(folder.resolve("journal"), "lab-box", JournalRules.USUAL)) {
      Progress progress =
          new Transfer(
                  new LocalEndpoint(local),
                  remote(journal),
                  ConflictRule.REPLACE,
                  PathContract.NEVER_ASKED,
                  new Cancellation())
              .run(List.of("today.txt"));
      assertThat(progress.problems()).isEmpty();
      assertThat(world.readLink(Caller.ROOT, TRIAL + "/today.txt")).isEqualTo("other.txt");
      PutBack putBack =
          new PutBack(connection.files(), new NoShell(), journal, connection.whoAmI().home());
      putBack.run(journal.entries().get(0), false);
      assertThat(there("today.txt")).isEqualTo("level 2.48");
    }
  }

  @Test
  void writesNothingOutsideTheFolderWhateverTheServerNames() throws IOException {
    makeThere("good.txt", "good");
    riverside
        .demo
        .server("lab-box")
        .faults()
        .setExtraNames(List.of("../evil", "/etc/evil", "..", "a/b", "nul\0name", ""));
    Progress progress = down(ConflictRule.ASK, PathContract.NEVER_ASKED).run(List.of("good.txt"));
    assertThat(progress.problems()).isEmpty();
    Path inner = Files.createDirectory(local.resolve("inner"));
    Progress whole =
        new Transfer(
                new RemoteEndpoint(connection.files(), RemotePath.of("/home/warden"), Journal.NONE),
                new LocalEndpoint(inner),
                ConflictRule.ASK,
                PathContract.NEVER_ASKED,
                new Cancellation())
            .run(List.of("trial"));
    assertThat(whole.phase()).isEqualTo(Phase.DONE);
    try (var files = Files.walk(folder)) {
      assertThat(files.map(Path::toString)).noneMatch(name -> name.contains("evil"));
    }
    assertThat(inner.resolve("trial/good.txt")).hasContent("good");
  }

  @Test
  void takesShortAnswersAndServersWithoutExtensions() throws IOException {
    byte[] content = new byte[300_000];
    new Random(2).nextBytes(content);
    Files.write(local.resolve("feed.bin"), content);
    riverside.demo.server("lab-box").faults().setShortReads(true);
    riverside.demo.server("lab-box").faults().setPlainProtocol(true);
    connection.close();
    connection = riverside.open("lab-box");
    assertThat(up(ConflictRule.ASK, PathContract.NEVER_ASKED).run(List.of("feed.bin")).problems())
        .isEmpty();
    Files.delete(local.resolve("feed.bin"));
    assertThat(down(ConflictRule.ASK, PathContract.NEVER_ASKED).run(List.of("feed.bin")).problems())
        .isEmpty();
    assertThat(local.resolve("feed.bin")).hasBinaryContent(content);
  }

  @Test
  void aCutLineLeavesOnlyWholeFiles() throws IOException {
    List<String> names = new ArrayList<>();
    byte[] content = new byte[40_000];
    for (int i = 0; i < 12; i++) {
      new Random(i).nextBytes(content);
      names.add("part-" + i);
      Files.write(local.resolve("part-" + i), content);
    }
    for (int cut = 20_000; cut < 500_000; cut += 60_000) {
      for (String name : world.list(Caller.ROOT, TRIAL)) {
        world.unlink(Caller.ROOT, TRIAL + "/" + name);
      }
      try (Relay relay = new Relay(riverside.demo.server("lab-box").port())) {
        riverside.redirectTo(relay.port());
        try (Connection cuttable = riverside.open("lab-box")) {
          relay.cutAfter(cut);
          Progress progress =
              new Transfer(
                      new LocalEndpoint(local),
                      new RemoteEndpoint(cuttable.files(), RemotePath.of(TRIAL), Journal.NONE),
                      ConflictRule.ASK,
                      PathContract.NEVER_ASKED,
                      new Cancellation())
                  .run(names);
          assertThat(progress.phase()).isEqualTo(Phase.BROKEN);
          assertThat(progress.problems()).extracting(Problem::why).contains("the connection broke");
        }
      }
      for (String name : world.list(Caller.ROOT, TRIAL)) {
        if (!name.contains(".zander-")) {
          assertThat(there(name).length())
              .as(name)
              .isEqualTo(new String(Files.readAllBytes(local.resolve(name))).length());
        }
      }
    }
  }
}
