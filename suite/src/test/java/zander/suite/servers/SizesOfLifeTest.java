package zander.suite.servers;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CancellationException;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.DeleteTask;
import zander.core.change.HeldThings;
import zander.core.change.PutBack;
import zander.core.change.RemoteChanges;
import zander.core.change.place.HoldingFolder;
import zander.core.change.save.AtomicSave;
import zander.core.connect.Connection;
import zander.core.edit.TextFile;
import zander.core.facts.TreeSize;
import zander.core.files.RemoteEntry;
import zander.core.files.RemotePath;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalRules;
import zander.core.journal.NewChange;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.server.SharedConnectionChannels;
import zander.core.work.Cancellation;
import zander.suite.SystemSshd;

/** Numbers that a year of work brings: each in the ordinary run. */
@Timeout(value = 120, unit = TimeUnit.SECONDS)
class SizesOfLifeTest {
  private static final String ACCOUNT = "zndsizes";
  private static final int FILES = 20_000;

  @TempDir static Path folder;
  @TempDir Path local;
  private static SystemSshd sshd;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd = new SystemSshd(folder, List.of(ACCOUNT), List.of());
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  private static void asAccount(String script, Path at) throws Exception {
    SystemSshd.run("sh", "-c", script + " && chown -R " + ACCOUNT + ": .", at.toString());
  }

  @Test
  void aFolderOfAHundredThousandNames() throws Exception {
    Path many = Files.createDirectories(folder.resolve(ACCOUNT + "/many"));
    asAccount("cd $0 && seq -f 'reading-%.0f.csv' 1 100000 | xargs touch", many);
    try (Connection connection = sshd.open(ACCOUNT)) {
      int[] told = {0};
      List<RemoteEntry> all =
          connection.files().list(RemotePath.of(many.toString()), part -> told[0] += part.size());
      assertThat(all).hasSize(100_000);
      assertThat(told[0]).isEqualTo(100_000);
    }
  }

  /** All of them in one selection: sent up as a tree, deleted by name, put back, and let go. */
  @Test
  void twentyThousandFilesSentDeletedPutBackAndLetGo() throws Exception {
    Path tree = Files.createDirectories(local.resolve("tree"));
    for (int i = 0; i < FILES; i++) {
      Files.writeString(tree.resolve("station-" + i), "level " + i);
    }
    try (Connection connection = sshd.open(ACCOUNT);
        FileJournal journal =
            new FileJournal(local.resolve("journal"), "table", JournalRules.USUAL)) {
      RemotePath home = connection.whoAmI().home();
      Progress progress =
          new Transfer(
                  new LocalEndpoint(local),
                  new RemoteEndpoint(
                      new SharedConnectionChannels(() -> connection), home, journal, home),
                  ConflictRule.ASK,
                  null,
                  new Cancellation())
              .run(List.of("tree"));
      assertThat(progress.problems()).isEmpty();
      Path there = folder.resolve(ACCOUNT + "/tree");
      assertThat(there.toFile().list()).hasSize(FILES);

      List<RemotePath> paths =
          connection.files().list(home.child("tree"), part -> {}).stream()
              .map(RemoteEntry::path)
              .toList();
      DeleteTask deleting = new DeleteTask(connection.files(), connection, journal, home);
      List<Long> told = new ArrayList<>();
      Cancellation stop = new Cancellation();
      assertThatThrownBy(
              () ->
                  deleting.hold(
                      paths,
                      held -> {
                        told.add(held);
                        stop.stop();
                      },
                      stop))
          .isInstanceOf(CancellationException.class);
      assertThat(told).hasSize(1);
      List<RemotePath> left =
          connection.files().list(home.child("tree"), part -> {}).stream()
              .map(RemoteEntry::path)
              .toList();
      assertThat(left).hasSize(FILES - told.get(0).intValue());
      assertThat(deleting.hold(left, told::add, new Cancellation())).isEmpty();
      assertThat(told.subList(1, told.size())).isSorted().endsWith((long) left.size());
      assertThat(there.toFile().list()).isEmpty();

      PutBack putBack = new PutBack(connection.files(), connection, journal, home);
      long[] through = {0};
      List<PutBack.Outcome> outcomes =
          putBack.runAll(
              journal.entries().subList(0, FILES), done -> through[0] = done, new Cancellation());
      assertThat(outcomes).hasSize(FILES).allMatch(PutBack.Outcome::isDone);
      assertThat(through[0]).isEqualTo(FILES);
      assertThat(there.toFile().list()).hasSize(FILES);
      assertThat(there.resolve("station-777")).hasContent("level 777");

      assertThat(deleting.guards(paths)).containsOnly(DeleteTask.Guard.NONE);
      assertThat(deleting.hold(paths)).isEmpty();
      HeldThings held = new HeldThings(connection.files(), connection, journal);
      TreeSize measure = new TreeSize(connection.files(), connection);
      int went =
          held.letGo(
              new HeldThings.Rules(0, 0),
              some -> measure.each(some, new Cancellation()),
              new Cancellation());
      assertThat(went).isEqualTo(FILES);
      assertThat(held.entries()).isEmpty();
      assertThat(folder.resolve(ACCOUNT + "/" + HoldingFolder.NAME).toFile().list()).isEmpty();
    }
  }

  @Test
  void aJournalOfFiveThousandEntries() throws Exception {
    try (FileJournal journal =
        new FileJournal(local.resolve("journal"), "table", JournalRules.USUAL)) {
      for (int i = 0; i < 5000; i++) {
        RemotePath path = RemotePath.of("/srv/levels/station-" + i);
        journal.begin(NewChange.of(zander.core.journal.ChangeKind.MAKE_FILE, path)).done();
      }
    }
    try (FileJournal journal =
        new FileJournal(local.resolve("journal"), "table", JournalRules.USUAL)) {
      assertThat(journal.entries()).hasSize(5000).allMatch(entry -> entry.isDone());
      assertThat(journal.entries().get(0).path().name()).isEqualTo("station-4999");
      assertThat(journal.about(RemotePath.of("/srv/levels/station-7"))).hasSize(1);
    }
  }

  @Test
  void aTextOfTenMegabytes() throws Exception {
    String text = "2026-11-27 10:00 level 2.48 at Long Reach\n".repeat(250_000);
    try (Connection connection = sshd.open(ACCOUNT);
        FileJournal journal =
            new FileJournal(local.resolve("journal"), "table", JournalRules.USUAL)) {
      RemotePath file = connection.whoAmI().home().child("feed.log");
      new RemoteChanges(connection.files(), connection, journal).makeFile(file);
      AtomicSave saver = new AtomicSave(connection.files(), connection, journal);
      saver.save(
          saver.open(file, 16 << 20).version(), text.getBytes(StandardCharsets.UTF_8), List.of());
      AtomicSave.Opened opened = saver.open(file, 16 << 20);
      assertThat(TextFile.decode(opened.content()).text()).isEqualTo(text);
    }
  }
}
