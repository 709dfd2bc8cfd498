package zander.core.transfer.endpoint;

/** Which way over the waterline. */
public enum Direction {
  SEND_UP,
  BRING_DOWN,
  /** From one server to another, through this computer. */
  ACROSS
}
