package zander.desk.history;

import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.edit.LineDifference;
import zander.core.edit.NotTextException;
import zander.core.edit.TextFile;
import zander.core.journal.JournalEntry;
import zander.desk.sheet.OpenDesk;

/** What an entry of the journal changed in a text, line by line; waits for disk and server. */
final class EntryDifference {
  private static final long LARGEST = 16L << 20;

  private final OpenDesk desk;

  EntryDifference(OpenDesk desk) {
    this.desk = desk;
  }

  /**
   * Empty for what is no text, or not kept.
   *
   * @throws zander.core.seal.StillSealed when it is sealed, and the vault closed
   */
  List<LineDifference.Line> of(JournalEntry entry) throws java.io.IOException {
    byte[] before = desk.journal().contentBefore(entry, false);
    byte[] after = contentAfter(entry);
    if (before == null || after == null) {
      return List.of();
    }
    try {
      return LineDifference.of(TextFile.decode(before).text(), TextFile.decode(after).text());
    } catch (NotTextException e) {
      return List.of();
    }
  }

  /** What a save wrote: kept by the next one that replaced it, or still on the server. */
  private byte @Nullable [] contentAfter(JournalEntry entry) throws java.io.IOException {
    String digest = entry.after() == null ? null : entry.after().digest();
    for (JournalEntry other : desk.journal().about(entry.path())) {
      if (digest != null && digest.equals(other.contentId())) {
        return desk.journal().contentBefore(other, false);
      }
    }
    return desk.files().readAll(entry.path(), LARGEST);
  }
}
