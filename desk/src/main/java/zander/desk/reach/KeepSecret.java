package zander.desk.reach;

/** How long a secret is kept. */
public enum KeepSecret {
  /** Used once. */
  NOW,
  /** In memory, as long as the desk is open. */
  DESK,
  /** Sealed in the vault. */
  VAULT
}
