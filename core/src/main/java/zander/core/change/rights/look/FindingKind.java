package zander.core.change.rights.look;

/** What is worth knowing of the rights below a folder. */
public enum FindingKind {
  /** Everyone can write it; in a folder, also remove what others put there. */
  ANYONE_WRITES,
  /** It looks like a secret, and everyone can read it. */
  SECRET_READABLE,
  /** It belongs to a number that no account or group has. */
  OWNED_BY_NOBODY,
  /** A program that runs as its owner or group. */
  RUNS_AS_OWNER,
  /** The account that is asked about can write it. */
  ACCOUNT_WRITES
}
