package zander.core.kept;

import org.jspecify.annotations.Nullable;
import zander.core.files.PathPattern;
import zander.core.rights.ModeRule;

/**
 * One line of the rights that a folder keeps. What it leaves open is as an earlier line has it.
 *
 * @param line counted from 1
 * @param shown the pattern as it was written
 * @param pattern {@code null} for the folder itself
 * @param freed whether what it fits is left alone, whatever earlier lines say
 * @param owner name or number; {@code null} to leave it open
 * @param group the same
 * @param files what the modes of files are; {@code null} to leave it open
 * @param folders the same for folders
 * @param filesShown as it was written
 * @param foldersShown the same
 */
public record KeptRule(
    int line,
    String shown,
    @Nullable PathPattern pattern,
    boolean freed,
    @Nullable String owner,
    @Nullable String group,
    @Nullable ModeRule files,
    @Nullable ModeRule folders,
    @Nullable String filesShown,
    @Nullable String foldersShown) {

  /** The rule for the folder itself, and nothing in it. */
  static final String ITSELF = "/";

  /**
   * Whether it is about an entry itself; what is in a folder that it fits is meant as well.
   *
   * @param path from the folder that keeps the rules, in wire form; empty for that folder
   */
  boolean fits(String path, boolean folder) {
    if (pattern == null) {
      return path.isEmpty();
    }
    return pattern.fits(path, folder) && !(path.isEmpty() && pattern.isTied());
  }
}
