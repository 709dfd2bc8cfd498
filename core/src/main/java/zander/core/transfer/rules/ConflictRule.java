package zander.core.transfer.rules;

/** The rule for a name that is taken on the other side. What is the same is never asked about. */
public enum ConflictRule {
  ASK,
  REPLACE,
  SKIP,
  /** Replaced by what was changed later than what is there. */
  NEWER,
  /** Replaced when size or time differ. */
  DIFFERENT,
  /** Replaced when the contents differ, which takes their checksums. */
  DIFFERENT_CONTENT,
  KEEP_BOTH
}
