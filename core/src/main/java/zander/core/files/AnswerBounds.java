package zander.core.files;

/**
 * How much is taken of what a server answers. Beyond it an answer is none, and what asked for it
 * ends with words: a server must not fill the memory, or keep anybody waiting without end.
 */
public final class AnswerBounds {
  /**
   * Bytes of one name. Linux has names of 255 (limits.h, NAME_MAX); some file systems longer ones.
   */
  public static final int NAME = 1024;

  /** Bytes of a path that a server tells (limits.h, PATH_MAX). */
  public static final int PATH = 16 * 1024;

  /** Bytes of what a server says about a failure. */
  public static final int SAID = 1024;

  /** Bytes of what a script writes, where all of it is wanted at once. */
  public static final int SCRIPT = 16 << 20;

  /** Answers in a row that hold nothing, where each should bring something nearer to its end. */
  public static final int EMPTY_ANSWERS = 1000;

  /** What one entry of a listing takes in memory, and some room for what is made of it. */
  private static final int ENTRY_BYTES = 1024;

  private static final int MOST_ENTRIES = 5_000_000;

  private AnswerBounds() {}

  /** Entries of one folder: as many as fit into a half of the memory there is. */
  public static int entries() {
    return (int) Math.min(MOST_ENTRIES, Runtime.getRuntime().maxMemory() / 2 / ENTRY_BYTES);
  }

  /** Entries of a tree of which a few bytes each are kept: as many as fit into that half packed. */
  public static long treeEntries() {
    return 16L * entries();
  }
}
