package zander.core.crossing;

/** What a crossing does when the line to a server breaks. */
@FunctionalInterface
public interface LostLine {
  /** The crossing ends there. */
  LostLine ENDS_IT = () -> false;

  /**
   * Waits for the line to come back. Called by several threads at once.
   *
   * @return false to end the crossing
   */
  boolean awaitNext();
}
