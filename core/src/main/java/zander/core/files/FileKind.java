package zander.core.files;

/** What an entry of a folder is, from the format bits of its mode (POSIX {@code <sys/stat.h>}). */
public enum FileKind {
  FILE(0100000),
  FOLDER(0040000),
  LINK(0120000),
  /** A socket, a pipe or a device: seen and named, never carried. */
  OTHER(0);

  private static final int FORMAT_MASK = 0170000;
  private final int format;

  FileKind(int format) {
    this.format = format;
  }

  public static FileKind ofMode(int mode) {
    for (FileKind kind : values()) {
      if (kind != OTHER && (mode & FORMAT_MASK) == kind.format) {
        return kind;
      }
    }
    return OTHER;
  }
}
