package zander.core.journal;

import static java.nio.charset.StandardCharsets.ISO_8859_1;
import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemotePath;
import zander.core.rights.Mode;
import zander.core.seal.ContentSeal;
import zander.core.seal.SealKeys;
import zander.core.seal.StandInVault;
import zander.core.seal.StillSealed;

/** What was replaced on a server, on the disk of this computer. */
class SealedJournalTest {
  private static final RemotePath KEYS = RemotePath.of("/etc/levels/keys.conf");
  private static final String SECRET = "token heron-at-dusk";

  @TempDir Path folder;
  private final StandInVault vault = new StandInVault();

  private ContentSeal seal() {
    return new ContentSeal(folder.resolve("kept.pub"), vault);
  }

  private FileJournal open(ContentSeal seal) throws IOException {
    return new FileJournal(folder.resolve("journal"), "levels-web", JournalRules.USUAL, seal);
  }

  private static void save(FileJournal journal, int mode, String content) throws IOException {
    RemoteAttributes was =
        new RemoteAttributes(FileKind.FILE, content.length(), 0, 0, new Mode(mode), 3, 3);
    journal
        .begin(
            NewChange.of(ChangeKind.SAVE, KEYS)
                .states(FileState.of(was), null)
                .content(content.getBytes(UTF_8)))
        .done();
  }

  private static String newest(FileJournal journal) throws IOException {
    byte[] content = journal.contentBefore(journal.entries().get(0), false);
    return content == null ? null : new String(content, UTF_8);
  }

  /** Everything below the folder, packed content unpacked, as whoever has the disk reads it. */
  private String onTheDisk() throws IOException {
    StringBuilder all = new StringBuilder();
    List<Path> files = new ArrayList<>();
    try (var walk = Files.walk(folder)) {
      walk.filter(Files::isRegularFile).forEach(files::add);
    }
    for (Path file : files) {
      byte[] bytes = Files.readAllBytes(file);
      if (file.toString().endsWith(".gz")) {
        bytes = new GZIPInputStream(new ByteArrayInputStream(bytes)).readAllBytes();
      }
      all.append(new String(bytes, ISO_8859_1)).append('\n');
    }
    return all.toString();
  }

  @Test
  void aClosedFileIsNeverKeptInClear() throws IOException {
    for (int mode : new int[] {0600, 0640, 0400, 0000, 0660}) {
      try (FileJournal journal = open(seal())) {
        save(journal, mode, SECRET + mode);
        assertThat(onTheDisk()).doesNotContain(SECRET);
        assertThat(newest(journal)).as("in this run it can be put back").startsWith(SECRET);
        assertThat(journal.endsWithThisRun(journal.entries().get(0))).isTrue();
      }
    }
    try (FileJournal journal = open(seal())) {
      assertThat(journal.keepsContent(journal.entries().get(0))).isFalse();
      assertThat(newest(journal)).as("and nothing is left that nobody can open").isNull();
      save(journal, 0644, "open to all");
      assertThat(onTheDisk()).contains("open to all");
      assertThat(journal.endsWithThisRun(journal.entries().get(0))).isFalse();
    }
  }

  @Test
  void whatIsInTheOpenElsewhereStaysWhenAClosedFileHasItToo() throws IOException {
    try (FileJournal journal = open(seal())) {
      save(journal, 0600, "same");
      save(journal, 0644, "same");
      save(journal, 0600, "same");
    }
    try (FileJournal journal = open(seal())) {
      assertThat(newest(journal)).isEqualTo("same");
    }
  }

  @Test
  void withAVaultAllIsSealedAndLasts() throws IOException {
    ContentSeal first = seal();
    first.lastWith(SealKeys.publicOf(vault.secret));
    vault.open = false;
    try (FileJournal journal = open(first)) {
      save(journal, 0600, SECRET);
      save(journal, 0644, "open to all");
      assertThat(newest(journal)).as("nobody is asked in the same run").isEqualTo("open to all");
    }
    assertThat(onTheDisk()).doesNotContain(SECRET).doesNotContain("open to all");
    try (FileJournal journal = open(seal())) {
      JournalEntry entry = journal.entries().get(1);
      assertThat(journal.keepsContent(entry)).isTrue();
      assertThatThrownBy(() -> journal.contentBefore(entry, false)).isInstanceOf(StillSealed.class);
      vault.open = true;
      assertThat(journal.contentBefore(entry)).asString().isEqualTo(SECRET);
    }
  }

  @Test
  void aVaultThatIsMadeLaterSealsWhatWasThere() throws IOException {
    ContentSeal seal = seal();
    try (FileJournal journal = open(seal)) {
      save(journal, 0644, "open to all");
      save(journal, 0600, SECRET);
      seal.lastWith(SealKeys.publicOf(vault.secret));
      journal.sealKept();
      assertThat(journal.endsWithThisRun(journal.entries().get(0))).isFalse();
    }
    assertThat(onTheDisk()).doesNotContain(SECRET).doesNotContain("open to all");
    try (FileJournal journal = open(seal())) {
      assertThat(newest(journal)).isEqualTo(SECRET);
      assertThat(journal.contentBefore(journal.entries().get(1))).asString().contains("open");
    }
  }

  @Test
  void emptiedItKeepsTheHistoryAlone() throws IOException {
    try (FileJournal journal = open(seal())) {
      save(journal, 0644, "open to all");
      save(journal, 0600, SECRET);
      journal.begin(NewChange.of(ChangeKind.SAVE, KEYS).content("under way".getBytes(UTF_8)));
      assertThat(journal.empty(false)).isTrue();
      assertThat(newest(journal)).isEqualTo("under way");
      assertThat(journal.keepsContent(journal.entries().get(1))).isFalse();
      assertThat(journal.entries()).hasSize(3);
      try (FileJournal another = open(seal())) {
        assertThat(another.empty(true)).as("while another program writes here").isFalse();
      }
      assertThat(journal.empty(true)).isTrue();
      assertThat(newest(journal)).isEqualTo("under way");
      assertThat(journal.entries()).hasSize(1);
    }
    assertThat(onTheDisk()).doesNotContain(SECRET).doesNotContain("open to all");
  }
}
