package zander.desk.reading;

import java.io.IOException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.function.Predicate;
import zander.core.reading.FileLine;
import zander.core.reading.FollowedFile;
import zander.core.reading.PagedFile;
import zander.core.work.Cancellation;
import zander.desk.reading.RowWindow.Place;

/** Reads rows around a place, over the files that were at the path. Waits for the server. */
final class RowReader {
  /** So much is looked through for lines that pass, before the person is asked to go on. */
  private static final long MOST_BYTES = 32L << 20;

  private static final int ENOUGH = 300;

  private final FollowedFile followed;
  private final LineFilter filter;
  private final Predicate<String> passes;
  private final Cancellation stop;

  /**
   * @throws java.util.regex.PatternSyntaxException when the filter's expression is none
   */
  RowReader(FollowedFile followed, LineFilter filter, Cancellation stop) {
    this.followed = followed;
    this.filter = filter;
    this.passes = filter.test(stop);
    this.stop = stop;
  }

  /**
   * @param reached up to where the file was looked through
   */
  record Rows(List<Row> rows, Place reached) {}

  Rows before(Place end) throws IOException {
    List<Row> found = new ArrayList<>();
    PagedFile file = end.file();
    long at = end.offset();
    for (long read = 0; !isEnough(found.size(), read); ) {
      stop.throwIfStopped();
      if (at == 0) {
        PagedFile older = followed.fileBefore(file);
        if (older == null) {
          break;
        }
        found.add(Row.notice(file, 0, ReadingWords.REPLACED));
        file = older;
        at = older.sizeNow();
        continue;
      }
      List<FileLine> lines = file.before(at);
      for (int i = lines.size() - 1; i >= 0; i--) {
        addPassing(file, lines.get(i), found);
      }
      long reached = lines.isEmpty() ? 0 : lines.get(0).from();
      read += at - reached;
      at = reached;
    }
    Collections.reverse(found);
    return new Rows(found, new Place(file, at));
  }

  Rows after(Place from) throws IOException {
    List<Row> found = new ArrayList<>();
    PagedFile file = from.file();
    long at = from.offset();
    for (long read = 0; !isEnough(found.size(), read); ) {
      stop.throwIfStopped();
      List<FileLine> lines = file.after(at);
      if (lines.isEmpty()) {
        PagedFile newer = followed.fileAfter(file);
        if (newer == null) {
          break;
        }
        found.add(Row.notice(newer, 0, ReadingWords.REPLACED));
        file = newer;
        at = 0;
        continue;
      }
      for (FileLine line : lines) {
        addPassing(file, line, found);
      }
      long reached = lines.get(lines.size() - 1).end();
      read += reached - at;
      at = reached;
    }
    return new Rows(found, new Place(file, at));
  }

  /** Of all lines half a page is enough. */
  private boolean isEnough(int found, long read) {
    return read >= MOST_BYTES
        || (read >= PagedFile.PAGE / 2 && (filter.isAll() || found >= ENOUGH));
  }

  private void addPassing(PagedFile file, FileLine line, List<Row> found) {
    if (passes.test(line.text())) {
      found.add(new Row(file, line));
    }
  }

  /** Those of what has come that pass, with what happened to the file before them. */
  List<Row> of(FollowedFile.Growth growth) {
    List<Row> rows = new ArrayList<>();
    String notice = ReadingWords.of(growth.turn());
    if (!notice.isEmpty()) {
      rows.add(Row.notice(growth.file(), 0, notice));
    }
    growth.lines().forEach(line -> addPassing(growth.file(), line, rows));
    return rows;
  }
}
