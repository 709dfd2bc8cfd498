package zander.core.transfer.rules;

import zander.core.rights.Mode;

/** The modes that the folder something arrives in keeps. Asked on the threads of a transfer. */
public interface KeptModes {
  /**
   * @param to where it arrives, relative to the target's base, in wire form
   * @param from the mode at the source
   */
  Mode of(String to, Mode from, boolean folder);
}
