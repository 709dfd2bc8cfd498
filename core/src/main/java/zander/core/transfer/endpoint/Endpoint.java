package zander.core.transfer.endpoint;

import java.io.IOException;
import java.util.List;
import java.util.function.Consumer;
import org.jspecify.annotations.Nullable;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.Phrase;
import zander.core.phrase.TransferPhrase;

/**
 * One end of a transfer: a folder on a server or on this computer. Paths are relative to it, in
 * wire form with {@code /} between names, empty for the folder itself. All methods wait; several
 * threads may call them.
 */
public interface Endpoint {
  /** The path for people. */
  String show(String path);

  /** What is in a folder, links not followed. */
  List<TreeEntry> list(String folder) throws IOException;

  /**
   * The same in portions, as they come and in no order.
   *
   * @param portion is called by this thread
   */
  default void list(String folder, Consumer<List<TreeEntry>> portion) throws IOException {
    portion.accept(list(folder));
  }

  /** What is at the path, links not followed; {@code null} for nothing. */
  @Nullable TreeEntry look(String path) throws IOException;

  /** The same for many; what cannot be looked at is told as nothing. */
  List<TreeEntry> lookAll(List<String> paths) throws IOException;

  /** What links lead to, under the links' names; {@code null} for one that leads nowhere. */
  List<TreeEntry> lookThroughAll(List<String> links) throws IOException;

  /**
   * The content of one small file.
   *
   * @return {@code null} when it has more bytes than that
   */
  byte @Nullable [] content(String path, int limit) throws IOException;

  /**
   * SHA-256 of the beginning of a file.
   *
   * @param length bytes from the front; -1 for the whole
   * @return 64 hexadecimal digits
   */
  String digest(String path, long length) throws IOException;

  /** SHA-256 of many files; {@code null} for one that cannot be read. */
  List<String> digests(List<String> paths) throws IOException;

  /** How files go to and from this side, and why; {@code null} when there is nothing to say. */
  default @Nullable Phrase carrier() {
    return null;
  }

  /**
   * Removes what a broken line left lying about.
   *
   * @throws IOException when the line broke again; what is left is tried at the next call
   */
  default void tidyUp() throws IOException {}

  /** Ends programs that do not come to an end by themselves. Does not fail. */
  default void giveUp() {}

  /** Gives up what was opened for the transfer alone. Does not fail. */
  default void end() {}

  /** Whether a failure is one of this side, so that {@link #why} can tell of it. */
  boolean isOwn(IOException failure);

  /** What a failure means, about this side. */
  Phrase why(IOException failure);

  /** Whether a failure means that nothing more can be done on this side. */
  boolean isLost(IOException failure);

  /** A name that cannot be on this side. */
  final class NameNotPossible extends ExplainedException {
    public NameNotPossible(Phrase why) {
      super(why);
    }
  }

  /** What arrived is not what was sent. */
  final class NotTheSame extends ExplainedException {
    public NotTheSame() {
      super(TransferPhrase.NOT_THE_SAME.of());
    }
  }

  static String join(String folder, String name) {
    return folder.isEmpty() ? name : folder + "/" + name;
  }

  static String nameOf(String path) {
    return path.substring(path.lastIndexOf('/') + 1);
  }

  static String folderOf(String path) {
    int slash = path.lastIndexOf('/');
    return slash < 0 ? "" : path.substring(0, slash);
  }
}
