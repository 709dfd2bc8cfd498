package zander.core.journal;

import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;
import zander.core.phrase.JournalPhrase;

/** Forgets everything. */
final class NoJournal implements Journal, Journal.Pending {
  @Override
  public Pending begin(NewChange change) {
    return this;
  }

  @Override
  public long id() {
    return 0;
  }

  @Override
  public void done(@Nullable FileState now, List<FolderTime> touched) {}

  @Override
  public void failed(String why) {}

  @Override
  public void lost() {}

  @Override
  public long newGroup() {
    return 0;
  }

  @Override
  public List<JournalEntry> entries() {
    return List.of();
  }

  @Override
  public List<JournalEntry> about(RemotePath path) {
    return List.of();
  }

  @Override
  public byte @Nullable [] contentBefore(JournalEntry entry, boolean mayAsk) {
    return null;
  }

  @Override
  public boolean keepsContent(JournalEntry entry) {
    return false;
  }

  @Override
  public boolean endsWithThisRun(JournalEntry entry) {
    return false;
  }

  @Override
  public JournalEntry last(JournalEntry entry) {
    return entry;
  }

  @Override
  public boolean isPutBack(JournalEntry entry) {
    return false;
  }

  @Override
  public List<JournalEntry> unfinished() {
    return List.of();
  }

  @Override
  public void settleDone(JournalEntry entry) {}

  @Override
  public void settle(JournalEntry entry, JournalPhrase how) {}
}
