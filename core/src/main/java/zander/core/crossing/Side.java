package zander.core.crossing;

import java.io.IOException;
import java.io.InputStream;
import java.util.List;
import zander.core.rights.Mode;

/**
 * One end of a crossing: a folder on a server or on this computer. Paths are relative to it, in
 * wire form with {@code /} between names, empty for the folder itself. All methods wait; several
 * threads may call them.
 */
public interface Side {
  /** The path for people. */
  String show(String path);

  /** What is in a folder, links not followed. */
  List<Node> list(String folder) throws IOException;

  /** What is at the path, links not followed; {@code null} for nothing. */
  Node look(String path) throws IOException;

  InputStream read(String file) throws IOException;

  /**
   * Starts a new file under a temporary name beside the path.
   *
   * @param replacing what it may replace, as it was seen; {@code null} when the place must be free
   * @throws NameNotPossible when this side cannot hold the name
   */
  Incoming create(String file, Node replacing) throws IOException;

  /**
   * @param mode the bits it has from the first moment; must let the maker fill it
   */
  void makeFolder(String folder, Mode mode) throws IOException;

  /** Makes a link; replaces a file or link that is there when {@code replace} is set. */
  void makeLink(String link, String target, boolean replace) throws IOException;

  void setFolderRights(String folder, Mode mode, long modified) throws IOException;

  /**
   * Removes what a broken line left lying about.
   *
   * @throws IOException when the line broke again; what is left is tried at the next call
   */
  default void tidyUp() throws IOException {}

  /** Turns a failure into words about this side. */
  String why(IOException failure);

  /** Whether a failure means that nothing more can be done on this side. */
  boolean isLost(IOException failure);

  /** A file that is arriving. Not in its place before {@link #arrive}. */
  interface Incoming extends AutoCloseable {
    void write(byte[] bytes, int offset, int length) throws IOException;

    /**
     * Gives it mode and time and puts it in its place in one step.
     *
     * @return words on what could not be kept, or {@code null}
     */
    String arrive(Mode mode, long modified) throws IOException;

    /** Removes the temporary file unless it arrived. */
    @Override
    void close();
  }

  /** A name that cannot be on this side. */
  final class NameNotPossible extends IOException {
    NameNotPossible(String message) {
      super(message);
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
