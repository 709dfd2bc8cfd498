package zander.core.transfer.rules;

/** What a transfer does when the line to a server breaks. */
@FunctionalInterface
public interface ReconnectPrompt {
  /** The transfer ends there. */
  ReconnectPrompt ENDS_IT = () -> false;

  /**
   * Waits for the line to come back. Called by several threads at once.
   *
   * @return false to end the transfer
   */
  boolean awaitNext();
}
