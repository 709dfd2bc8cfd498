package zander.core.journal;

/**
 * One line of the journal.
 *
 * @param id counts up within one journal
 * @param at milliseconds since 1970-01-01 UTC, by this computer's clock
 * @param contentId the digest under which the replaced content is kept, or {@code null}
 * @param outcome empty while under way, {@code done}, or why it failed
 */
public record JournalEntry(
    long id,
    long at,
    ChangeKind kind,
    String path,
    String before,
    String after,
    String contentId,
    String outcome) {

  public boolean isDone() {
    return outcome.equals("done");
  }

  public boolean isUnderWay() {
    return outcome.isEmpty();
  }

  JournalEntry ended(String how) {
    return new JournalEntry(id, at, kind, path, before, after, contentId, how);
  }
}
