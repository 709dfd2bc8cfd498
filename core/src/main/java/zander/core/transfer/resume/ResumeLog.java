package zander.core.transfer.resume;

import java.util.Map;
import java.util.Set;

/**
 * What a transfer leaves behind as it goes, for one that continues it after the program ended. For
 * several threads.
 */
public interface ResumeLog {
  /** Folders of the target that an earlier try made and did not finish, by path. */
  Set<String> foldersBefore();

  /** A large file that an earlier try did not carry to its end. */
  record Begun(String part, long size, long modified) {}

  /** By the path where they go. */
  Map<String, Begun> partsBefore();

  /**
   * Whether this continues an earlier try: what is the same on both sides has been transferred
   * then.
   */
  default boolean continues() {
    return false;
  }

  void folderMade(String to);

  void folderFinished(String to);

  void partBegun(String to, Begun part);

  void partEnded(String to);

  ResumeLog NONE =
      new ResumeLog() {
        @Override
        public Set<String> foldersBefore() {
          return Set.of();
        }

        @Override
        public Map<String, Begun> partsBefore() {
          return Map.of();
        }

        @Override
        public void folderMade(String to) {}

        @Override
        public void folderFinished(String to) {}

        @Override
        public void partBegun(String to, Begun part) {}

        @Override
        public void partEnded(String to) {}
      };
}
