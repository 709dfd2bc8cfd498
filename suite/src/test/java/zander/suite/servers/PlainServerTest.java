package zander.suite.servers;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Assumptions;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.api.io.TempDir;
import zander.core.change.PutBack;
import zander.core.change.Recovery;
import zander.core.change.save.AtomicSave;
import zander.core.connect.Connection;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileJournal;
import zander.core.journal.FileState;
import zander.core.journal.JournalEntry;
import zander.core.journal.JournalRules;
import zander.core.journal.NewChange;
import zander.core.transfer.Transfer;
import zander.core.transfer.local.LocalEndpoint;
import zander.core.transfer.progress.Progress;
import zander.core.transfer.remote.RemoteEndpoint;
import zander.core.transfer.rules.ConflictRule;
import zander.core.transfer.server.ServerChannels;
import zander.core.work.Cancellation;
import zander.suite.SystemSshd;

/** A server that can neither rename over a file nor make hard links, and has no shell. */
@Timeout(value = 60, unit = TimeUnit.SECONDS)
class PlainServerTest {
  private static final String ACCOUNT = "zndplain";
  private static final AtomicInteger NUMBER = new AtomicInteger();

  @TempDir static Path folder;
  @TempDir Path local;
  private static SystemSshd sshd;
  private Connection connection;
  private RemoteFiles files;
  private Path site;
  private RemotePath at;
  private FileJournal journal;

  @BeforeAll
  static void start() throws Exception {
    Assumptions.assumeTrue(SystemSshd.isPossible(), "needs openssh-server, and to be root");
    sshd =
        new SystemSshd(
            folder,
            List.of(ACCOUNT),
            List.of("Subsystem sftp internal-sftp -P posix-rename,hardlink,copy-data"));
    SystemSshd.run("usermod", "-s", "/usr/sbin/nologin", ACCOUNT);
  }

  @AfterAll
  static void stop() throws Exception {
    if (sshd != null) {
      sshd.close();
    }
  }

  @BeforeEach
  void open() throws Exception {
    connection = sshd.open(ACCOUNT);
    files = connection.files();
    site = Files.createDirectories(folder.resolve(ACCOUNT + "/site-" + NUMBER.incrementAndGet()));
    at = RemotePath.of(site.toString());
    journal = new FileJournal(local.resolve("journal"), "lab-box", JournalRules.USUAL);
    own();
  }

  @AfterEach
  void end() throws Exception {
    journal.close();
    connection.close();
  }

  private void own() throws Exception {
    SystemSshd.run("chown", "-R", ACCOUNT + ":", site.toString());
  }

  private List<String> names() throws IOException {
    return files.list(at, part -> {}).stream().map(entry -> entry.name()).sorted().toList();
  }

  @Test
  void saysBeforehandThatItCannotAndSavesInSteps() throws Exception {
    assertThat(files.renamesOver()).isFalse();
    Files.writeString(site.resolve("site.conf"), "old");
    own();
    AtomicSave saver = new AtomicSave(files, connection, journal);
    saver.save(saver.open(at.child("site.conf"), 100).version(), "new".getBytes(UTF_8), List.of());
    assertThat(site.resolve("site.conf")).hasContent("new");
    assertThat(names()).containsExactly("site.conf");
    PutBack putBack = new PutBack(files, connection, journal, connection.whoAmI().home());
    assertThat(putBack.run(journal.entries().get(0), false)).isEqualTo(PutBack.Verdict.READY);
    assertThat(site.resolve("site.conf")).hasContent("old");
  }

  /** What a break between the two steps leaves: brought to its end, or taken back. */
  @Test
  void aBreakBetweenTheStepsIsMendedFromTheJournal() throws Exception {
    for (boolean finish : new boolean[] {true, false}) {
      RemotePath target = at.child("feed-" + finish + ".xml");
      RemotePath part = at.child(".feed.zander-new" + finish);
      RemotePath aside = at.child(".feed.zander-old" + finish);
      Files.writeString(Path.of(part.text()), "new");
      Files.writeString(Path.of(aside.text()), "old");
      own();
      FileState old = FileState.of(files.look(aside)).withDigest(sha256("old"));
      FileState now = FileState.of(files.look(part)).withDigest(sha256("new"));
      journal
          .begin(
              NewChange.of(ChangeKind.SAVE, target)
                  .states(old, now)
                  .content("old".getBytes(UTF_8))
                  .part(part)
                  .to(aside))
          .lost();
      JournalEntry entry = journal.unfinished().get(0);
      Recovery recovery = new Recovery(files, connection, journal);
      Recovery.Finding finding = recovery.look(entry);
      assertThat(finding.state()).isEqualTo(Recovery.State.HALF);
      assertThat(finding.mayFinish()).isTrue();
      assertThat(finding.mayUndo()).isTrue();
      if (finish) {
        recovery.finish(finding);
      } else {
        recovery.undo(finding);
      }
      assertThat(Path.of(target.text())).hasContent(finish ? "new" : "old");
      assertThat(journal.unfinished()).isEmpty();
    }
    assertThat(names()).containsExactly("feed-false.xml", "feed-true.xml");
  }

  private static String sha256(String text) throws Exception {
    byte[] digest = java.security.MessageDigest.getInstance("SHA-256").digest(text.getBytes(UTF_8));
    return java.util.HexFormat.of().formatHex(digest);
  }

  /** Small and large: each has its held place in the journal, and comes back from there. */
  @Test
  void whatATransferReplacesIsKept() throws Exception {
    byte[] large = new byte[6 << 20];
    new Random(14).nextBytes(large);
    Files.write(site.resolve("readings.bin"), large);
    Files.writeString(site.resolve("index.html"), "old page");
    own();
    Files.write(local.resolve("readings.bin"), Arrays.copyOf(large, 5 << 20));
    Files.writeString(local.resolve("index.html"), "new page");
    Progress progress =
        new Transfer(
                new LocalEndpoint(local),
                new RemoteEndpoint(
                    ServerChannels.of(files), at, journal, connection.whoAmI().home()),
                ConflictRule.REPLACE,
                null,
                new Cancellation())
            .run(List.of("readings.bin", "index.html"));
    assertThat(progress.problems()).isEmpty();
    assertThat(site.resolve("index.html")).hasContent("new page");
    assertThat(site.resolve("readings.bin")).hasSize(5 << 20);
    assertThat(names()).containsExactly("index.html", "readings.bin");
    assertThat(journal.entries())
        .hasSize(2)
        .allMatch(entry -> entry.kind() == ChangeKind.REPLACE && entry.to() != null);

    PutBack putBack = new PutBack(files, connection, journal, connection.whoAmI().home());
    assertThat(putBack.runAll(putBack.since(0), n -> {}, new Cancellation()))
        .hasSize(2)
        .allMatch(PutBack.Outcome::isDone);
    assertThat(site.resolve("index.html")).hasContent("old page");
    assertThat(site.resolve("readings.bin")).hasBinaryContent(large);
  }
}
