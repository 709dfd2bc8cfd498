package zander.desk.compare;

import java.io.IOException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.TimeUnit;
import zander.core.edit.BackupNames;
import zander.core.edit.TextFile;
import zander.core.files.FileKind;
import zander.core.files.RemoteEntry;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.journal.Journal;
import zander.core.journal.JournalEntry;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;
import zander.desk.sheet.Texts;
import zander.desk.words.Words;

/** Other versions of a file: what the journal has kept, and backups that lie beside it. */
public final class FileVersions {
  private static final Words WORDS = Words.of(FileVersions.class);

  private FileVersions() {}

  private interface Content {
    byte[] read() throws IOException;
  }

  /**
   * A version.
   *
   * @param at when it was the newest, in seconds since 1970-01-01 UTC
   */
  public record Version(String name, long at, Content content) {
    /** Its text; waits for the server or the disk. */
    public String text() throws IOException {
      return TextFile.decode(content.read()).text();
    }
  }

  /** All that are known, the newest first; waits for the server and the disk. */
  public static List<Version> of(Journal journal, RemoteFiles files, RemotePath real)
      throws IOException {
    List<Version> all = new ArrayList<>();
    addKept(journal, real, all);
    addBeside(files, real, all);
    all.sort(Comparator.comparingLong(Version::at).reversed());
    return all;
  }

  private static void addKept(Journal journal, RemotePath real, List<Version> into)
      throws IOException {
    for (JournalEntry entry : journal.about(real)) {
      if (entry.isDone() && entry.path().equals(real) && journal.keepsContent(entry)) {
        long at = TimeUnit.MILLISECONDS.toSeconds(entry.at());
        into.add(
            new Version(
                WORDS.say("theVersionUntilFrom", Texts.when(at, Clock.systemDefaultZone())),
                at,
                () -> kept(journal, entry)));
      }
    }
  }

  private static byte[] kept(Journal journal, JournalEntry entry) throws IOException {
    byte[] content = journal.contentBefore(entry);
    if (content == null) {
      throw new ExplainedException(KeptPhrase.BEFORE_NOT_KEPT.of());
    }
    return content;
  }

  private static void addBeside(RemoteFiles files, RemotePath real, List<Version> into)
      throws IOException {
    for (RemoteEntry entry : files.list(real.parent(), portion -> {})) {
      boolean fits =
          entry.kind() == FileKind.FILE
              && BackupNames.isOneOf(real.wireName(), entry.path().wireName());
      if (fits && entry.attributes().size() <= TextFile.LARGEST) {
        long at = entry.attributes().modified();
        into.add(
            new Version(
                WORDS.say(
                    "changedAt", entry.path().name(), Texts.when(at, Clock.systemDefaultZone())),
                at,
                () -> files.readAll(entry.path(), TextFile.LARGEST)));
      }
    }
  }
}
