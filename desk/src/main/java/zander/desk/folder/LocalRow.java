package zander.desk.folder;

import java.nio.file.Path;
import zander.core.transfer.endpoint.TreeEntry;

/**
 * One row of this computer's folder.
 *
 * @param standing how it stands against the entry of the same name on the server
 */
public record LocalRow(Path path, TreeEntry node, Standing standing) {

  /** How a file here stands against the server's, as far as size and time tell. */
  public enum Standing {
    /** Folders, and while no server folder is shown. */
    UNKNOWN(""),
    ONLY_HERE("only here"),
    SAME("same"),
    NEWER_HERE("newer here"),
    OLDER_HERE("older here"),
    DIFFERS("differs");

    private final String words;

    Standing(String words) {
      this.words = words;
    }

    public String words() {
      return words;
    }

    /** Whether it is worth a look. */
    public boolean stands() {
      return this != UNKNOWN && this != SAME;
    }
  }

  public String name() {
    return zander.core.files.WireName.toText(node.name());
  }

  public boolean isFolder() {
    return node.kind() == zander.core.files.FileKind.FOLDER;
  }
}
