package zander.core.journal;

import java.io.IOException;
import java.util.List;

/**
 * The record of every change made on a server. A change is written down before it is done, with
 * what was there before, and marked when it has ended. Safe for several threads; waits for the
 * disk.
 */
public interface Journal {
  /**
   * Writes down a change that is about to be made.
   *
   * @param kind what is done
   * @param path the file or folder on the server, as text
   * @param before what was there, in words ({@code deploy:web 0644}); empty for nothing
   * @param after what is meant to be there
   * @param content the content that is about to be replaced, or {@code null}
   */
  Pending begin(ChangeKind kind, String path, String before, String after, byte[] content)
      throws IOException;

  /** The entries about a path, newest first. */
  List<JournalEntry> about(String path) throws IOException;

  /** The content that an entry kept, or {@code null} when it kept none. */
  byte[] contentBefore(JournalEntry entry) throws IOException;

  /** A change under way. Exactly one of the two is called, once. */
  interface Pending {
    void done() throws IOException;

    /**
     * @param why what failed, in words that name no secret
     */
    void failed(String why) throws IOException;
  }

  /** A journal that forgets, for tests and for measuring. */
  Journal NONE =
      new Journal() {
        @Override
        public Pending begin(
            ChangeKind kind, String path, String before, String after, byte[] content) {
          return new Pending() {
            @Override
            public void done() {}

            @Override
            public void failed(String why) {}
          };
        }

        @Override
        public List<JournalEntry> about(String path) {
          return List.of();
        }

        @Override
        public byte[] contentBefore(JournalEntry entry) {
          return null;
        }
      };
}
