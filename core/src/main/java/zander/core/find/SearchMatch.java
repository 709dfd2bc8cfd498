package zander.core.find;

import zander.core.files.RemotePath;

/**
 * A line that was found.
 *
 * @param line counted from 1
 * @param text the line, or the part of a long one around what was found
 * @param from where in the text it begins
 * @param to where it ends
 */
public record SearchMatch(RemotePath file, int line, String text, int from, int to) {
  private static final int LONGEST = 300;

  /** Cuts a long line around what was found. */
  static SearchMatch of(RemotePath file, int line, String whole, int from, int to) {
    if (whole.length() <= LONGEST) {
      return new SearchMatch(file, line, whole, from, to);
    }
    int start = Math.max(0, Math.min(from - LONGEST / 3, whole.length() - LONGEST));
    int end = Math.min(whole.length(), start + LONGEST);
    return new SearchMatch(
        file, line, whole.substring(start, end), from - start, Math.min(to, end) - start);
  }
}
