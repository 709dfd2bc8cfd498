package zander.core;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.book.BookFile;
import zander.core.book.Mark;
import zander.core.book.MarkedFolder;
import zander.core.book.ServerEntry;
import zander.core.connect.channel.WayUp;
import zander.core.files.RemotePath;
import zander.core.journal.ChangeKind;
import zander.core.journal.FileJournal;
import zander.core.journal.JournalEntry;
import zander.core.journal.JournalRules;
import zander.core.journal.NewChange;
import zander.core.seal.ContentSeal;
import zander.core.transfer.endpoint.Direction;
import zander.core.transfer.resume.ResumeFolder;
import zander.core.transfer.resume.ResumeLog;
import zander.core.transfer.resume.ResumeLogFile;
import zander.core.transfer.rules.ConflictRule;
import zander.core.vault.Vault;

/**
 * Files that the program of 2026-11-27 wrote: all of it is read, and once this one has written into
 * them, what that one looks for is still there.
 */
class OldFilesTest {
  private static final Path OLD = Path.of("src/test/resources/zander/old");
  private static final RemotePath SITE = RemotePath.of("/srv/levels/site.conf");
  private static final RemotePath ODD = RemotePath.ofWire("/srv/\u00ff\n'odd\u00fe");

  /** A magic word and the number of the format. */
  private static final int VAULT_HEAD = 16;

  @TempDir Path folder;

  @BeforeEach
  void copy() throws IOException {
    try (Stream<Path> all = Files.walk(OLD)) {
      for (Path one : (Iterable<Path>) all::iterator) {
        Path to = folder.resolve(OLD.relativize(one).toString());
        if (!one.equals(OLD)) {
          Files.copy(one, to);
        }
      }
    }
  }

  private byte[] old(String name) throws IOException {
    return Files.readAllBytes(OLD.resolve(name));
  }

  @Test
  void theVault() throws IOException {
    Path file = folder.resolve("vault");
    char[] master = "weir under nine stars".toCharArray();
    try (Vault vault = Vault.open(file, master.clone())) {
      assertThat(vault.names()).containsExactly("passphrase /k", "password warden@gate");
      assertThat(vault.get("passphrase /k")).isEqualTo("ötter →".toCharArray());
      vault.put("new", "tern".toCharArray());
    }
    try (Vault vault = Vault.open(file, master.clone())) {
      assertThat(vault.get("password warden@gate")).isEqualTo("heron-at-dusk".toCharArray());
    }
    assertThat(Arrays.copyOf(Files.readAllBytes(file), VAULT_HEAD))
        .as("the format that the other one knows")
        .isEqualTo(Arrays.copyOf(old("vault"), VAULT_HEAD));
  }

  @Test
  void theServerBook() throws IOException {
    BookFile file = new BookFile(folder.resolve("servers.json"));
    BookFile.Read read = file.read();
    assertThat(read.problem()).isNull();
    assertThat(read.book().removed()).extracting(ServerEntry::name).containsExactly("gate");
    ServerEntry site = read.book().servers().get(0);
    assertThat(site.address()).hasToString("warden@levels.example:2222");
    assertThat(site.group()).isEqualTo("public");
    assertThat(site.mark()).isEqualTo(Mark.LIVE);
    assertThat(site.jump()).containsExactly("gate", "deploy@inner.example");
    assertThat(site.signIn().certificate()).isEqualTo(".ssh/warden-cert.pub");
    assertThat(site.signIn().password()).isFalse();
    assertThat(site.landing()).isEqualTo("/srv/levels/site");
    assertThat(site.service()).isEqualTo("web");
    assertThat(site.folders())
        .containsExactly(
            MarkedFolder.of("Site", "/srv/levels", "pages", "https://levels.example/"));
    assertThat(site.ways()).isEmpty();
    assertThat(site.proxyCommand()).isNull();
    file.change(book -> book.with(site.name(), site.withWay("root", WayUp.SU)));
    ObjectMapper json = new ObjectMapper();
    assertHas(
        json.readTree(folder.resolve("servers.json").toFile()), json.readTree(old("servers.json")));
  }

  /** All that was there is there, with the same names and values; there may be more. */
  private static void assertHas(JsonNode now, JsonNode was) {
    if (was.isContainerNode()) {
      if (was.isArray()) {
        assertThat(now.size()).isGreaterThanOrEqualTo(was.size());
        for (int i = 0; i < was.size(); i++) {
          assertHas(now.get(i), was.get(i));
        }
      }
      was.fieldNames()
          .forEachRemaining(
              name -> {
                assertThat(now.has(name)).as(name).isTrue();
                assertHas(now.get(name), was.get(name));
              });
    } else {
      assertThat(now).isEqualTo(was);
    }
  }

  @Test
  void theJournal() throws IOException {
    Path place = folder.resolve("journal");
    try (FileJournal journal = new FileJournal(place, "levels-web", JournalRules.USUAL)) {
      List<JournalEntry> all = journal.entries();
      assertThat(journal.damaged()).isZero();
      assertThat(all)
          .extracting(JournalEntry::kind)
          .containsExactlyInAnyOrder(
              ChangeKind.DELETE, ChangeKind.SAVE, ChangeKind.RIGHTS, ChangeKind.RENAME);
      assertThat(journal.unfinished())
          .extracting(JournalEntry::kind)
          .containsExactly(ChangeKind.RENAME);
      JournalEntry deleted = one(all, ChangeKind.DELETE);
      assertThat(deleted.path()).isEqualTo(ODD);
      assertThat(deleted.to()).isEqualTo(SITE);
      assertThat(deleted.note()).isEqualTo("words");
      assertThat(deleted.group()).isNotZero();
      assertThat(deleted.after().digest()).isEqualTo("cd");
      assertThat(deleted.after().mode().bits()).isEqualTo(04644);
      assertThat(one(all, ChangeKind.RIGHTS).outcome()).isEqualTo("failed: no permission");
      assertThat(journal.contentBefore(one(all, ChangeKind.SAVE)))
          .asString()
          .isEqualTo("level 3\n");
      journal
          .begin(
              NewChange.of(ChangeKind.SAVE, SITE).content("level 4\n".getBytes(UTF_8)).as("root"))
          .done();
    }
    assertThat(Files.readString(place.resolve("journal-1.log")))
        .as("only ever written on")
        .startsWith(new String(old("journal/journal-1.log"), UTF_8));
    try (Stream<Path> kept = Files.list(OLD.resolve("journal/content"))) {
      assertThat(kept.map(one -> place.resolve("content").resolve(one.getFileName())))
          .allMatch(Files::exists);
    }
  }

  private static JournalEntry one(List<JournalEntry> all, ChangeKind kind) {
    return all.stream().filter(entry -> entry.kind() == kind).findFirst().orElseThrow();
  }

  @Test
  void aTransferToGoOnWith() throws IOException {
    ResumeFolder transfers = new ResumeFolder(folder.resolve("transfers"), ContentSeal.ofThisRun());
    Path file = transfers.files().get(0);
    try (ResumeLogFile log = transfers.read(file, false)) {
      assertThat(log.transfer().direction()).isEqualTo(Direction.SEND_UP);
      assertThat(log.transfer().names()).containsExactly("img", "p\u00e4ge");
      assertThat(log.transfer().mark()).isEqualTo("ab12cd");
      assertThat(log.transfer().rules().whenExists()).isEqualTo(ConflictRule.NEWER);
      assertThat(log.continues()).isTrue();
      assertThat(log.foldersBefore()).containsExactly("img");
      assertThat(log.partsBefore())
          .containsOnlyKeys("img/large")
          .containsEntry(
              "img/large", new ResumeLog.Begun("img/.large.part", 1_234_567, 1_600_000_000));
      log.partEnded("img/large");
    }
    assertThat(Files.readString(file)).startsWith(new String(old("transfers/t1.log"), UTF_8));
    assertThat(transfers.read(file, false).partsBefore()).isEmpty();
  }
}
