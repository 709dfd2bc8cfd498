package zander.core.connect.report;

/** The steps from a name to an open desk, in their order. */
public enum SignInStep {
  /** Find the host's addresses by its name. */
  NAME,
  /** Open a TCP connection to the port. */
  PORT,
  /** Read the server's greeting (RFC 4253, section 4.2) and agree on algorithms. */
  GREETING,
  /** Compare the host key with what is known. */
  HOST_KEY,
  /** Prove to be the account's owner: keys, password, questions. */
  SIGN_IN,
  /** Start the file service (SFTP). */
  FILES,
  /** Ask a command who one is: whether the account has a shell. */
  SHELL
}
