package zander.core.journal;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemotePath;
import zander.core.phrase.JournalPhrase;
import zander.core.rights.Mode;
import zander.core.seal.StillSealed;

class FileJournalTest {
  private static final RemotePath SITE = RemotePath.of("/srv/levels/site.conf");
  private static final RemotePath ODD = RemotePath.ofWire("/srv/\u00ff\n'odd\u00fe");
  private static final FileState STATE =
      new FileState(
          new RemoteAttributes(FileKind.LINK, 7, 1004, -1, new Mode(04644), 1_700_000_000, 3),
          "ab12",
          "../\u00ff");

  @TempDir Path folder;

  private FileJournal open() throws IOException {
    return new FileJournal(folder, "levels-web", JournalRules.USUAL);
  }

  private static NewChange change(ChangeKind kind) {
    return NewChange.of(kind, SITE);
  }

  @Test
  void keepsEverythingOfAnEntryOverARestart() throws IOException {
    JournalEntry written;
    try (FileJournal journal = open()) {
      long group = journal.newGroup();
      journal
          .begin(
              NewChange.of(ChangeKind.DELETE, ODD)
                  .to(SITE)
                  .states(STATE, null)
                  .content("old".getBytes(UTF_8))
                  .part(ODD.parent())
                  .group(group)
                  .undoes(5)
                  .note("words")
                  .as("root"))
          .done(STATE.withDigest("cd"), List.of(new FolderTime(ODD.parent(), 1, 2)));
      journal
          .begin(change(ChangeKind.SAVE).states(STATE, null).content("old".getBytes(UTF_8)))
          .failed("no permission");
      written = journal.about(ODD).get(0);
      assertThat(written.group()).isEqualTo(group).isNotZero();
    }
    try (FileJournal journal = open()) {
      assertThat(journal.about(ODD)).containsExactly(written);
      assertThat(written.after()).isEqualTo(STATE.withDigest("cd"));
      assertThat(journal.contentBefore(written)).asString().isEqualTo("old");
      assertThat(journal.about(SITE))
          .as("the path it led to counts as well")
          .extracting(JournalEntry::kind)
          .containsExactly(ChangeKind.SAVE, ChangeKind.DELETE);
      assertThat(journal.about(SITE).get(0).outcome()).isEqualTo("failed: no permission");
      assertThat(journal.unfinished()).isEmpty();
    }
    try (var kept = Files.list(folder.resolve("content"))) {
      assertThat(kept).as("the same content is kept once").hasSize(1);
    }
  }

  @Test
  void tellsWhatWasLeftUnderWay() throws IOException {
    try (FileJournal journal = open()) {
      journal.begin(change(ChangeKind.RIGHTS));
      journal.begin(change(ChangeKind.SAVE)).done();
      assertThat(journal.unfinished()).as("this run goes on").isEmpty();
      journal.begin(change(ChangeKind.RENAME)).lost();
      assertThat(journal.unfinished()).hasSize(1);
    }
    try (FileJournal journal = open()) {
      List<JournalEntry> left = journal.unfinished();
      assertThat(left)
          .extracting(JournalEntry::kind)
          .containsExactly(ChangeKind.RIGHTS, ChangeKind.RENAME);
      journal.settleDone(left.get(0));
      journal.settle(left.get(1), JournalPhrase.LEFT_AS_FOUND);
    }
    try (FileJournal journal = open()) {
      assertThat(journal.unfinished()).isEmpty();
      assertThat(journal.entries())
          .extracting(JournalEntry::isDone)
          .containsExactly(false, true, true);
    }
  }

  @Test
  void knowsWhatIsPutBackAndWhatIsAgain() throws IOException {
    try (FileJournal journal = open()) {
      Journal.Pending first = journal.begin(change(ChangeKind.SAVE));
      first.done();
      Journal.Pending back = journal.begin(change(ChangeKind.SAVE).undoes(first.id()));
      JournalEntry entry = journal.about(SITE).get(1);
      assertThat(journal.isPutBack(entry)).as("while it is under way").isFalse();
      back.done();
      assertThat(journal.isPutBack(entry)).isTrue();
      journal.begin(change(ChangeKind.SAVE).undoes(back.id())).done();
      assertThat(journal.isPutBack(entry)).as("putting back was put back").isFalse();
    }
  }

  @Test
  void severalProgramsWriteBesideEachOther() throws IOException {
    try (FileJournal one = open();
        FileJournal other = open()) {
      Journal.Pending underWay = one.begin(change(ChangeKind.SAVE));
      other.begin(change(ChangeKind.RIGHTS)).done();
      try (FileJournal third = open()) {
        assertThat(third.entries()).hasSize(2);
        assertThat(third.unfinished()).as("its program still runs").isEmpty();
      }
      underWay.done();
    }
    try (FileJournal journal = open()) {
      assertThat(journal.entries()).hasSize(2).allMatch(JournalEntry::isDone);
      assertThat(journal.entries()).extracting(JournalEntry::id).doesNotHaveDuplicates();
    }
  }

  @Test
  void aLogCutAtAnyByteLosesNothingBeforeTheCut() throws IOException {
    try (FileJournal journal = open()) {
      for (int i = 0; i < 3; i++) {
        journal.begin(change(ChangeKind.RIGHTS).note("entry " + i)).done();
      }
    }
    byte[] log = Files.readAllBytes(folder.resolve("journal-1.log"));
    String text = new String(log, UTF_8);
    for (int length = 0; length <= log.length; length++) {
      Path cut = Files.createDirectories(folder.resolve("cut-" + length));
      Files.write(cut.resolve("journal-1.log"), Arrays.copyOf(log, length));
      long whole = 0;
      for (int i = 0; i < 3; i++) {
        whole += length >= text.indexOf('\n', text.indexOf("entry " + i)) ? 1 : 0;
      }
      try (FileJournal journal = new FileJournal(cut, "x", JournalRules.USUAL)) {
        assertThat(journal.entries()).as("cut after %d", length).hasSize((int) whole);
        journal.begin(change(ChangeKind.SAVE).note("after the cut")).done();
      }
      try (FileJournal journal = new FileJournal(cut, "x", JournalRules.USUAL)) {
        assertThat(journal.entries().get(0).note()).isEqualTo("after the cut");
        assertThat(journal.entries().get(0).isDone()).isTrue();
      }
    }
  }

  @Test
  void aDamagedByteSpoilsOnlyItsLine() throws IOException {
    try (FileJournal journal = open()) {
      for (int i = 0; i < 20; i++) {
        journal.begin(change(ChangeKind.RIGHTS).note("entry " + i)).done();
      }
    }
    Path file = folder.resolve("journal-1.log");
    byte[] log = Files.readAllBytes(file);
    Random random = new Random(20261123);
    for (int i = 0; i < 200; i++) {
      byte[] damaged = log.clone();
      int at = 1 + random.nextInt(log.length - 2);
      damaged[at] ^= (byte) (1 + random.nextInt(255));
      Files.write(file, damaged);
      try (FileJournal journal = open()) {
        // A new line in the middle makes two bad lines; a lost one joins two good lines.
        assertThat(journal.entries()).as("byte %d", at).hasSizeGreaterThanOrEqualTo(18);
        assertThat(journal.damaged()).isBetween(0, 2);
      }
      Files.write(file, log);
    }
  }

  /** What would end the entry of a damaged line does not end another one. */
  @Test
  void theNumberOfADamagedLineIsNotGivenAgain() throws IOException {
    try (FileJournal journal = open()) {
      journal.begin(change(ChangeKind.SAVE)).done();
      journal.begin(change(ChangeKind.RIGHTS)).done();
    }
    Path log = folder.resolve("journal-1.log");
    String text = Files.readString(log);
    int line = text.indexOf("RIGHTS");
    Files.writeString(log, text.substring(0, line) + "R?" + text.substring(line + 2));
    try (FileJournal journal = open()) {
      assertThat(journal.entries()).hasSize(1);
      journal.begin(change(ChangeKind.RENAME)).lost();
      assertThat(journal.entries()).extracting(JournalEntry::id).doesNotHaveDuplicates();
    }
    try (FileJournal journal = open()) {
      assertThat(journal.unfinished())
          .extracting(JournalEntry::kind)
          .containsExactly(ChangeKind.RENAME);
    }
  }

  /** Each byte of it: what the next entry keeps can be put back, or is told to be damaged. */
  @Test
  void aDamagedContentIsKeptAnew() throws IOException {
    byte[] content = "level 3\n".repeat(9).getBytes(UTF_8);
    NewChange save = change(ChangeKind.SAVE).content(content);
    try (FileJournal journal = open()) {
      journal.begin(save.states(STATE, null)).done();
      Path kept;
      try (var files = Files.list(folder.resolve("content"))) {
        kept = files.findFirst().orElseThrow();
      }
      byte[] whole = Files.readAllBytes(kept);
      for (int at = 0; at < whole.length; at++) {
        byte[] damaged = whole.clone();
        damaged[at] ^= 0x55;
        Files.write(kept, damaged);
        JournalEntry entry = journal.entries().get(0);
        assertThat(contentOrDamage(journal, entry)).as("byte %d", at).isIn(null, "level 3");
        journal.begin(save.states(STATE, null)).done();
        assertThat(journal.contentBefore(journal.entries().get(0))).isEqualTo(content);
      }
      Files.write(kept, new byte[0]);
      journal.begin(save.states(STATE, null)).done();
      assertThat(journal.contentBefore(journal.entries().get(0))).isEqualTo(content);
    }
  }

  /** The first line; {@code null} where it is told that it is damaged. */
  private static String contentOrDamage(FileJournal journal, JournalEntry entry)
      throws IOException {
    try {
      return new String(journal.contentBefore(entry), UTF_8).lines().findFirst().orElse("");
    } catch (StillSealed e) {
      assertThat(e.reason()).isEqualTo(StillSealed.Reason.DAMAGED);
      return null;
    }
  }

  @Test
  void letsGoOfWhatTheRulesDoNotKeep() throws IOException {
    byte[] large = new byte[50_000];
    new Random(1).nextBytes(large);
    try (FileJournal journal = open()) {
      journal.begin(change(ChangeKind.SAVE).note("old").content(large)).done();
      journal.begin(change(ChangeKind.SAVE).note("new").content("small".getBytes(UTF_8))).done();
      journal.keepTo(new JournalRules(30, 10_000));
      assertThat(journal.contentBefore(journal.entries().get(0))).asString().isEqualTo("small");
      assertThat(journal.contentBefore(journal.entries().get(1))).isNull();
    }
  }

  @Test
  void oldEntriesGoAndThoseUnderWayStay() throws Exception {
    try (FileJournal journal = open()) {
      journal.begin(change(ChangeKind.SAVE).note("ended")).done();
      journal.begin(change(ChangeKind.SAVE).note("under way"));
    }
    age(folder.resolve("journal-1.log"), 40);
    try (FileJournal journal = new FileJournal(folder, "x", new JournalRules(30, 1 << 20))) {
      assertThat(journal.entries()).extracting(JournalEntry::note).containsExactly("under way");
      assertThat(journal.unfinished()).hasSize(1);
      journal.begin(change(ChangeKind.SAVE).note("after")).done();
    }
    try (FileJournal journal = open()) {
      assertThat(journal.entries())
          .extracting(JournalEntry::note)
          .containsExactly("after", "under way");
      assertThat(journal.damaged()).isZero();
    }
  }

  /** Makes all entries of a file older, with fitting checksums. */
  private static void age(Path file, int days) throws IOException {
    StringBuilder aged = new StringBuilder();
    for (String line : Files.readAllLines(file)) {
      if (line.isBlank()) {
        continue;
      }
      String json = line.substring(9);
      var at = java.util.regex.Pattern.compile("\"at\":([0-9]+)").matcher(json);
      if (at.find()) {
        long older = Long.parseLong(at.group(1)) - days * 86_400_000L;
        json = at.replaceFirst("\"at\":" + older);
      }
      var sum = new java.util.zip.CRC32C();
      sum.update(json.getBytes(java.nio.charset.StandardCharsets.UTF_8));
      aged.append(String.format("%08x %s%n", sum.getValue(), json));
    }
    Files.writeString(file, aged);
  }
}
