package zander.core.journal;

import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;
import zander.core.phrase.JournalPhrase;

/** A server's journal for what is done there as another account: each entry says so. */
public final class ActingJournal implements Journal {
  private final Journal journal;
  private final String account;

  /**
   * @param account that is acted as
   */
  public ActingJournal(Journal journal, String account) {
    this.journal = journal;
    this.account = account;
  }

  private NewChange signed(NewChange change) {
    return change.as(account);
  }

  @Override
  public Pending begin(NewChange change) throws IOException {
    return journal.begin(signed(change));
  }

  @Override
  public List<Pending> begin(List<NewChange> changes) throws IOException {
    return journal.begin(changes.stream().map(this::signed).toList());
  }

  @Override
  public long newGroup() {
    return journal.newGroup();
  }

  @Override
  public List<JournalEntry> entries() {
    return journal.entries();
  }

  @Override
  public List<JournalEntry> about(RemotePath path) {
    return journal.about(path);
  }

  @Override
  public byte @Nullable [] contentBefore(JournalEntry entry, boolean mayAsk) throws IOException {
    return journal.contentBefore(entry, mayAsk);
  }

  @Override
  public boolean keepsContent(JournalEntry entry) throws IOException {
    return journal.keepsContent(entry);
  }

  @Override
  public boolean endsWithThisRun(JournalEntry entry) throws IOException {
    return journal.endsWithThisRun(entry);
  }

  @Override
  public JournalEntry last(JournalEntry entry) {
    return journal.last(entry);
  }

  @Override
  public boolean isPutBack(JournalEntry entry) {
    return journal.isPutBack(entry);
  }

  @Override
  public List<JournalEntry> unfinished() {
    return journal.unfinished();
  }

  @Override
  public void settleDone(JournalEntry entry) throws IOException {
    journal.settleDone(entry);
  }

  @Override
  public void settle(JournalEntry entry, JournalPhrase how) throws IOException {
    journal.settle(entry, how);
  }
}
