package zander.core.transfer.rules;

import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.transfer.endpoint.TreeEntry;

/**
 * What becomes of a file or link by a rule: the one table that plans and transfers go by. Folders
 * that meet folders are gone into and not decided here.
 */
public enum Decision {
  /** It goes over, in the place of what is there, if anything is. */
  TRANSFER,
  /** What is there stays. */
  SKIP,
  /** What is there is the same. */
  UNCHANGED,
  /** Both have the same size, and the rule asks for their contents. */
  COMPARE,
  /** It goes beside what is there, under another name. */
  KEEP_BOTH,
  ASK;

  /**
   * @param there {@code null} for nothing
   * @param continued whether an earlier try is continued, so that what is the same went over then
   */
  public static Decision of(
      ConflictRule rule, TreeEntry coming, @Nullable TreeEntry there, boolean continued) {
    return switch (Comparison.of(coming, there)) {
      case NEW -> TRANSFER;
      case IN_THE_WAY -> inTheWay(rule);
      case SAME -> continued ? UNCHANGED : same(rule, coming, there);
      case NEWER -> rule == ConflictRule.NEWER ? TRANSFER : changed(rule, coming, there);
      case OLDER, DIFFERS -> changed(rule, coming, there);
    };
  }

  /** A folder is never replaced by a file, nor a file by a folder. */
  private static Decision inTheWay(ConflictRule rule) {
    return switch (rule) {
      case SKIP, NEWER, DIFFERENT, DIFFERENT_CONTENT -> SKIP;
      case KEEP_BOTH -> KEEP_BOTH;
      case ASK, REPLACE -> ASK;
    };
  }

  private static Decision same(ConflictRule rule, TreeEntry coming, @Nullable TreeEntry there) {
    return switch (rule) {
      case REPLACE -> TRANSFER;
      case KEEP_BOTH -> KEEP_BOTH;
      // Equal links are equal; files may differ all the same.
      case DIFFERENT_CONTENT -> mayBeEqual(coming, there) ? COMPARE : UNCHANGED;
      case ASK, SKIP, NEWER, DIFFERENT -> UNCHANGED;
    };
  }

  private static Decision changed(ConflictRule rule, TreeEntry coming, @Nullable TreeEntry there) {
    return switch (rule) {
      case ASK -> ASK;
      case REPLACE, DIFFERENT -> TRANSFER;
      case DIFFERENT_CONTENT -> mayBeEqual(coming, there) ? COMPARE : TRANSFER;
      case SKIP, NEWER -> SKIP;
      case KEEP_BOTH -> KEEP_BOTH;
    };
  }

  private static boolean mayBeEqual(TreeEntry coming, @Nullable TreeEntry there) {
    return coming.kind() == FileKind.FILE
        && there != null
        && there.kind() == FileKind.FILE
        && coming.size() == there.size();
  }
}
