package zander.core.crossing;

/** Which way over the waterline. */
public enum Direction {
  SEND_UP,
  BRING_DOWN,
  /** From one server to another, through this computer. */
  ACROSS
}
