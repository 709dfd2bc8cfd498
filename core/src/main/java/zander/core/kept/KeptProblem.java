package zander.core.kept;

import org.jspecify.annotations.Nullable;
import zander.core.phrase.Phrase;

/**
 * Why a line of the rights that a folder keeps cannot be read.
 *
 * @param line counted from 1
 * @param what the part of the line that is meant
 * @param detail what is wrong with a mode; {@code null} for anything else
 */
public record KeptProblem(int line, Kind kind, String what, @Nullable Phrase detail) {
  /** What is wrong. */
  public enum Kind {
    /** The pattern can fit nothing. */
    PATTERN,
    /** More than a pattern, owner, group, and two modes. */
    TOO_MANY_FIELDS,
    /** It says nothing about what it fits. */
    SAYS_NOTHING,
    MODE,
    TOO_MANY_LINES
  }
}
