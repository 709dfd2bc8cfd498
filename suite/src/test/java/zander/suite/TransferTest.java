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
import org.junit.jupiter.api.Test;
import zander.core.change.PutBack;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalEntry;
import zander.core.journal.JournalRules;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.progress.Progress.Phase;
import zander.core.transfer.rules.ConflictPrompt.Answer;
import zander.core.transfer.rules.ConflictPrompt.For;
import zander.core.transfer.rules.ConflictRule;
import zander.core.work.Cancellation;
import zander.core.work.Workers;
import zander.standin.world.Caller;

/** Questions and stops in a transfer. */
class TransferTest extends TransferFixture {
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
  void whatCameIntoASentUpFolderMeanwhileIsNotTakenAwayUnasked() throws IOException {
    Files.createDirectories(local.resolve("site/in/it"));
    Files.writeString(local.resolve("site/in/it/today.txt"), "level 2.48");
    try (FileJournal journal =
        new FileJournal(folder.resolve("journal"), "lab-box", JournalRules.USUAL)) {
      new Transfer(
              new LocalEndpoint(local),
              remote(journal),
              ConflictRule.REPLACE,
              PathContract.NEVER_ASKED,
              new Cancellation())
          .run(List.of("site"));
      PutBack putBack =
          new PutBack(connection.files(), connection, journal, connection.whoAmI().home());
      JournalEntry sent = journal.entries().get(0);
      assertThat(putBack.look(sent)).isEqualTo(PutBack.Verdict.READY);
      makeThere("site/in/it/theirs.txt", "theirs");
      assertThat(putBack.run(sent, false)).isEqualTo(PutBack.Verdict.CHANGED_SINCE);
      assertThat(there("site/in/it/theirs.txt")).isEqualTo("theirs");
    }
  }
}
