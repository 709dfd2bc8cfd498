package zander.desk.reach;

/** How long a secret is kept. */
public enum Keep {
  /** Used once. */
  NOW,
  /** In memory, as long as the desk is open. */
  DESK,
  /** Sealed in the vault. */
  VAULT
}
