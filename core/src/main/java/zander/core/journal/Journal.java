package zander.core.journal;

import java.io.IOException;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.files.RemoteFailure;
import zander.core.files.RemotePath;
import zander.core.phrase.JournalPhrase;

/**
 * The record of every change made on a server. A change is written down before it is done, with
 * what was there before, and marked when it has ended. Safe for several threads; what writes or
 * reads content waits for the disk.
 */
public interface Journal {
  /** Writes down a change that is about to be made. */
  Pending begin(NewChange change) throws IOException;

  /** The same for many at once, which are on the disk together. */
  default List<Pending> begin(List<NewChange> changes) throws IOException {
    List<Pending> begun = new java.util.ArrayList<>();
    for (NewChange change : changes) {
      begun.add(begin(change));
    }
    return begun;
  }

  /** A number for the changes of one action. */
  long newGroup();

  /** All entries, newest first. Does not wait. */
  List<JournalEntry> entries();

  /** The entries about a path, newest first: what was done to it, and what led to or from it. */
  List<JournalEntry> about(RemotePath path);

  /**
   * The content that an entry kept; {@code null} when it kept none or it was let go since.
   *
   * @param mayAsk whether the person may be asked to open the vault, for which this waits
   * @throws zander.core.seal.StillSealed when it cannot be opened
   */
  byte @Nullable [] contentBefore(JournalEntry entry, boolean mayAsk) throws IOException;

  /** The same, and the person may be asked. */
  default byte @Nullable [] contentBefore(JournalEntry entry) throws IOException {
    return contentBefore(entry, true);
  }

  /** Whether the content is still kept, sealed or not, so that it can be had. */
  boolean keepsContent(JournalEntry entry) throws IOException;

  /** Whether the content can be had only as long as the program runs: it is closed to others. */
  boolean endsWithThisRun(JournalEntry entry) throws IOException;

  /**
   * The last of an entry and those that put it back, did it again, put that back, and so on: what
   * has to be put back now to put this one back. The entry itself when nothing undoes it.
   */
  JournalEntry last(JournalEntry entry);

  /** Whether another entry has put this one back, and was not itself put back. */
  boolean isPutBack(JournalEntry entry);

  /**
   * Entries whose end is not known: a run of the program that ended without a word left them under
   * way, or the line broke. Oldest first.
   */
  List<JournalEntry> unfinished();

  /** Ends an entry that was left under way as done. */
  void settleDone(JournalEntry entry) throws IOException;

  /** Ends an entry that was left under way as failed. */
  void settle(JournalEntry entry, JournalPhrase how) throws IOException;

  /** A change under way. One of the endings is called, once. */
  interface Pending {
    long id();

    /**
     * @param now what is there after it; {@code null} when it is as was meant
     * @param touched the folders whose times it changed
     */
    void done(@Nullable FileState now, List<FolderTime> touched) throws IOException;

    default void done() throws IOException {
      done(null, List.of());
    }

    /**
     * @param why what failed, in words that name no secret
     */
    void failed(String why) throws IOException;

    default void failed(JournalPhrase why) throws IOException {
      failed(why.of().toString());
    }

    /** The line broke: what the server did is not known, and must be looked at later. */
    void lost() throws IOException;

    /** Ends it by a failure, as one of the two above. */
    default void failed(Exception why) throws IOException {
      boolean lost =
          why instanceof RemoteFailure failure
              && failure.reason() == RemoteFailure.Reason.LINE_LOST;
      if (lost) {
        lost();
      } else {
        failed(String.valueOf(why.getMessage()));
      }
    }
  }

  /** A journal that forgets, for measuring and for tests of other things. */
  Journal NONE = new NoJournal();
}
