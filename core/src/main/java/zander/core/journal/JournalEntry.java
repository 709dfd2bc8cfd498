package zander.core.journal;

import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;

/**
 * One change in the journal.
 *
 * @param id unique within one server's journal; later entries of one program run have larger ones
 * @param at milliseconds since 1970-01-01 UTC, by this computer's clock
 * @param desk the name of the desk it was made from
 * @param to see {@link NewChange}
 * @param before what was there; {@code null} for nothing
 * @param after what is there after it, as meant, and once it is done as it was then
 * @param contentId the digest under which the replaced content is kept, or {@code null}
 * @param outcome empty while under way, {@code done}, or why it failed
 */
public record JournalEntry(
    long id,
    long at,
    String desk,
    ChangeKind kind,
    RemotePath path,
    @Nullable RemotePath to,
    @Nullable FileState before,
    @Nullable FileState after,
    @Nullable String contentId,
    @Nullable RemotePath part,
    long group,
    long undoes,
    String note,
    String as,
    List<FolderTime> folders,
    String outcome) {

  static final String DONE = "done";

  static JournalEntry of(
      long id, long at, String desk, NewChange change, @Nullable String contentId) {
    return new JournalEntry(
        id,
        at,
        desk,
        change.kind(),
        change.path(),
        change.to(),
        change.before(),
        change.after(),
        contentId,
        change.part(),
        change.group(),
        change.undoes(),
        change.note(),
        change.as(),
        List.of(),
        "");
  }

  /**
   * Where it went, or what it replaced is.
   *
   * @throws ExplainedException when that is not noted, as the kinds of change that have it do
   */
  public RemotePath goal() throws ExplainedException {
    return noted(to);
  }

  /** The name it was made under first; fails as {@link #goal} does. */
  public RemotePath staged() throws ExplainedException {
    return noted(part);
  }

  /** What was there before; fails as {@link #goal} does. */
  public FileState was() throws ExplainedException {
    return noted(before);
  }

  /** What is there after it; fails as {@link #goal} does. */
  public FileState became() throws ExplainedException {
    return noted(after);
  }

  private static <T> T noted(@Nullable T fact) throws ExplainedException {
    if (fact == null) {
      throw new ExplainedException(KeptPhrase.TOO_LITTLE_NOTED.of());
    }
    return fact;
  }

  public boolean isDone() {
    return outcome.equals(DONE);
  }

  public boolean isUnderWay() {
    return outcome.isEmpty();
  }

  JournalEntry ended(String how, @Nullable FileState now, List<FolderTime> touched) {
    return new JournalEntry(
        id,
        at,
        desk,
        kind,
        path,
        to,
        before,
        now == null ? after : now,
        contentId,
        part,
        group,
        undoes,
        note,
        as,
        touched,
        how);
  }
}
