package zander.desk.reading;

import zander.core.reading.FileLine;
import zander.core.reading.PagedFile;

/**
 * A row of what is read.
 *
 * @param file which the line is of
 * @param line in it; one of no length where something is told
 * @param notice what is told between the lines; empty for a line of the file
 */
public record Row(PagedFile file, FileLine line, String notice) {
  Row(PagedFile file, FileLine line) {
    this(file, line, "");
  }

  static Row notice(PagedFile file, long at, String words) {
    return new Row(file, new FileLine(at, at, "", false), words);
  }

  public boolean isNotice() {
    return !notice.isEmpty();
  }

  public String text() {
    return isNotice() ? "— " + notice + " —" : line.text();
  }
}
