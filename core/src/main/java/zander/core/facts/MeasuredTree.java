package zander.core.facts;

/**
 * What trees amount to.
 *
 * @param bytes the sizes of all files, as their owners see them
 * @param others devices, pipes and sockets
 * @param unreadable folders that this account may not read, whose content is not counted
 */
public record MeasuredTree(
    long files, long folders, long links, long others, long bytes, long unreadable) {
  public static final MeasuredTree NOTHING = new MeasuredTree(0, 0, 0, 0, 0, 0);

  /** All entries. */
  public long count() {
    return files + folders + links + others;
  }

  MeasuredTree plus(char kind, long size) {
    return switch (kind) {
      case 'f' -> new MeasuredTree(files + 1, folders, links, others, bytes + size, unreadable);
      case 'd' -> new MeasuredTree(files, folders + 1, links, others, bytes, unreadable);
      case 'l' -> new MeasuredTree(files, folders, links + 1, others, bytes, unreadable);
      default -> new MeasuredTree(files, folders, links, others + 1, bytes, unreadable);
    };
  }

  MeasuredTree plusUnreadable(long more) {
    return new MeasuredTree(files, folders, links, others, bytes, unreadable + more);
  }
}
