package zander.core.crossing;

/** The rule for a name that is taken on the other side. */
public enum WhenExists {
  ASK,
  REPLACE,
  SKIP,
  KEEP_BOTH
}
