package zander.core.journal;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class FileJournalTest {
  @TempDir Path folder;

  @Test
  void keepsWhatWasThereBeforeOverARestart() throws IOException {
    try (FileJournal journal = new FileJournal(folder)) {
      journal
          .begin(ChangeKind.SAVE, "/etc/a", "root:web 0640", "12 bytes", "old".getBytes())
          .done();
      journal.begin(ChangeKind.RIGHTS, "/etc/a", "0640", "0600", null).failed("no permission");
      journal.begin(ChangeKind.SAVE, "/etc/b", "x", "y", "old".getBytes());
    }
    try (FileJournal journal = new FileJournal(folder)) {
      List<JournalEntry> about = journal.about("/etc/a");
      assertThat(about)
          .extracting(JournalEntry::kind)
          .containsExactly(ChangeKind.RIGHTS, ChangeKind.SAVE);
      assertThat(about.get(0).outcome()).isEqualTo("failed: no permission");
      assertThat(about.get(1).isDone()).isTrue();
      assertThat(journal.contentBefore(about.get(1))).asString().isEqualTo("old");
      assertThat(journal.about("/etc/b").get(0).isUnderWay()).isTrue();
      assertThat(journal.begin(ChangeKind.SAVE, "/c", "", "", null)).isNotNull();
      assertThat(journal.about("/c").get(0).id()).isEqualTo(4);
    }
    try (var kept = Files.list(folder.resolve("content"))) {
      assertThat(kept).as("the same content is kept once").hasSize(1);
    }
  }

  @Test
  void aLogCutAtAnyByteIsStillRead() throws IOException {
    try (FileJournal journal = new FileJournal(folder.resolve("whole"))) {
      for (int i = 0; i < 3; i++) {
        journal.begin(ChangeKind.RIGHTS, "/etc/a", "0640", "060" + i, null).done();
      }
    }
    byte[] log = Files.readAllBytes(folder.resolve("whole/journal.jsonl"));
    for (int length = 0; length <= log.length; length += 7) {
      Path cut = Files.createDirectories(folder.resolve("cut-" + length));
      Files.write(cut.resolve("journal.jsonl"), Arrays.copyOf(log, length));
      try (FileJournal journal = new FileJournal(cut)) {
        int before = journal.about("/etc/a").size();
        journal.begin(ChangeKind.RIGHTS, "/etc/a", "x", "after the cut", null).done();
        assertThat(journal.about("/etc/a")).hasSize(before + 1);
      }
      try (FileJournal journal = new FileJournal(cut)) {
        assertThat(journal.about("/etc/a").get(0).after()).isEqualTo("after the cut");
      }
    }
  }
}
