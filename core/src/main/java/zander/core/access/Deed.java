package zander.core.access;

/** What somebody may want to do with an entry. */
public enum Deed {
  /** To read a file, or see the names in a folder. */
  READ(4),
  /** To write a file; in a folder, to add and remove entries. */
  WRITE(2),
  /** To run a file, or to enter a folder. */
  RUN(1),
  /** To remove it from its folder, or rename it. */
  DELETE(0);

  private final int bits;

  Deed(int bits) {
    this.bits = bits;
  }

  /** The bits that are needed of the entry itself. */
  int bits(boolean folder) {
    // Names can be added only by who can also enter (POSIX XBD 4.5).
    return this == WRITE && folder ? 3 : bits;
  }
}
