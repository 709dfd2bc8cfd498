package zander.core.rights;

import zander.core.rights.Mode.May;
import zander.core.rights.Mode.Who;

/**
 * What becomes of the modes of many entries: all get the same, or each what a symbolic expression
 * makes of its own.
 */
public sealed interface ModeRule {
  /** For clauses that name no class, where nothing else is known. */
  int USUAL_UMASK = 022;

  /**
   * @param folder whether the entry is one
   */
  Mode apply(Mode before, boolean folder);

  /**
   * All twelve bits are the same afterwards.
   *
   * @param keepsRun whether folders, and files that somebody may run, can be entered or run by all
   *     who may read them, as {@code X} has it (POSIX XCU, chmod)
   */
  record Exact(Mode mode, boolean keepsRun) implements ModeRule {
    private static final int RUN = 0111;

    @Override
    public Mode apply(Mode before, boolean folder) {
      if (!keepsRun || !(folder || before.has(RUN))) {
        return mode;
      }
      Mode kept = mode;
      for (Who who : Who.values()) {
        if (mode.allows(who, May.READ)) {
          kept = kept.with(who, May.RUN, true);
        }
      }
      return kept;
    }
  }

  /**
   * @param umask 0 to 0777: bits that stay as they are in clauses that name no class
   */
  record Symbolic(SymbolicMode change, int umask) implements ModeRule {
    @Override
    public Mode apply(Mode before, boolean folder) {
      return change.apply(before, umask, folder);
    }
  }
}
