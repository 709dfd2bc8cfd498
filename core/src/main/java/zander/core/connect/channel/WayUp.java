package zander.core.connect.channel;

/** The program of the server by which another account is acted as. */
public enum WayUp {
  /** Asks for the password of whoever signed in; its rules say who may be acted as. */
  SUDO("sudo"),
  /** The same, with rules of its own. */
  DOAS("doas"),
  /** Asks for the password of the account that is acted as. */
  SU("su");

  private final String program;

  WayUp(String program) {
    this.program = program;
  }

  /** As it is called on the server. */
  public String program() {
    return program;
  }
}
