package zander.core.change.rights;

import java.io.Closeable;
import java.io.IOException;
import zander.core.rights.RightsStep;

/**
 * Sets rights of many entries. An entry that is not what it was, by kind and rights, is left; so is
 * one that is refused: what became of each is seen when it is read back. Used by one thread.
 */
interface RightsSetter extends Closeable {
  /**
   * @param path from the base, in wire form
   */
  void set(String path, RightsStep step) throws IOException;

  /** What is set from now on is set after all that came before; does not wait. */
  void inOrder() throws IOException;

  /** Waits until all are set. */
  void flush() throws IOException;

  /** Ends it, whether all was set or not. */
  @Override
  void close();
}
