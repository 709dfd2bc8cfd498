package zander.standin.world;

/**
 * What {@code stat} tells of a file.
 *
 * @param format the file type bits of {@code st_mode}
 * @param mode the lower twelve bits
 * @param list {@code null} for most
 * @param modified seconds since 1970-01-01 UTC, as the other times
 */
public record Stat(
    long number,
    int format,
    int mode,
    int links,
    int uid,
    int gid,
    long size,
    long accessed,
    long modified,
    long changed,
    AccessList list) {

  static Stat of(Node node) {
    int links =
        node.isFolder()
            ? 2 + (int) node.entries.values().stream().filter(Node::isFolder).count()
            : node.links;
    return new Stat(
        node.number,
        node.format,
        node.mode,
        links,
        node.uid,
        node.gid,
        node.size(),
        node.accessed,
        node.modified,
        node.changed,
        node.list);
  }

  public boolean isFolder() {
    return format == Node.FORMAT_FOLDER;
  }

  public boolean isLink() {
    return format == Node.FORMAT_LINK;
  }

  public boolean isFile() {
    return format == Node.FORMAT_FILE;
  }

  /** The whole {@code st_mode}. */
  public int fullMode() {
    return format | mode;
  }
}
