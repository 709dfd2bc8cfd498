package zander.core.journal;

import org.jspecify.annotations.Nullable;
import zander.core.files.RemotePath;
import zander.core.phrase.JournalPhrase;

/**
 * A change that is about to be made, with what is needed to put it back.
 *
 * @param to the other path: of a rename, a deletion (the holding place) or a replaced file's held
 *     original; {@code null} for none
 * @param before what is there now; {@code null} for nothing
 * @param after what is meant to be there, as far as known; {@code null} for nothing
 * @param content what is about to be replaced, or {@code null}
 * @param part a temporary file that a break may leave, or {@code null}
 * @param group the number that changes of one action share; 0 for none
 * @param undoes the entry that this puts back; 0 for none
 * @param note what else a person should read: a command, an address, or what a finding is written
 *     as; empty for none
 * @param as the account that was acted as, where that is not the one that signed in; or empty
 */
public record NewChange(
    ChangeKind kind,
    RemotePath path,
    @Nullable RemotePath to,
    @Nullable FileState before,
    @Nullable FileState after,
    byte @Nullable [] content,
    @Nullable RemotePath part,
    long group,
    long undoes,
    String note,
    String as) {

  public static NewChange of(ChangeKind kind, RemotePath path) {
    return new NewChange(kind, path, null, null, null, null, null, 0, 0, "", "");
  }

  public NewChange to(@Nullable RemotePath other) {
    return new NewChange(kind, path, other, before, after, content, part, group, undoes, note, as);
  }

  /** The states before and as meant after. */
  public NewChange states(@Nullable FileState was, @Nullable FileState meant) {
    return new NewChange(kind, path, to, was, meant, content, part, group, undoes, note, as);
  }

  public NewChange content(byte @Nullable [] replaced) {
    return new NewChange(kind, path, to, before, after, replaced, part, group, undoes, note, as);
  }

  public NewChange part(@Nullable RemotePath temporary) {
    return new NewChange(
        kind, path, to, before, after, content, temporary, group, undoes, note, as);
  }

  public NewChange group(long number) {
    return new NewChange(kind, path, to, before, after, content, part, number, undoes, note, as);
  }

  public NewChange undoes(long entry) {
    return new NewChange(kind, path, to, before, after, content, part, group, entry, note, as);
  }

  public NewChange note(JournalPhrase said) {
    return note(said.of().toString());
  }

  public NewChange note(String words) {
    return new NewChange(kind, path, to, before, after, content, part, group, undoes, words, as);
  }

  public NewChange as(String account) {
    return new NewChange(
        kind, path, to, before, after, content, part, group, undoes, note, account);
  }
}
