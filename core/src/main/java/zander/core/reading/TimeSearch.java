package zander.core.reading;

import java.io.IOException;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.util.List;
import org.jspecify.annotations.Nullable;
import zander.core.work.Cancellation;

/**
 * Finds a time in a log, whose lines are in the order of their times: by halves, so that of a file
 * of any size only a few parts are read. Lines without a time belong to the one before them.
 */
public final class TimeSearch {
  /** Lines are looked through for a time up to so many bytes behind a place. */
  private static final long WITHOUT_TIME = 64L << 20;

  private final PagedFile file;
  private final LocalDate about;
  private final Cancellation stop;

  /**
   * @param about the day the file was last written to, for lines that tell no year
   */
  public TimeSearch(PagedFile file, LocalDate about, Cancellation stop) {
    this.file = file;
    this.about = about;
    this.stop = stop;
  }

  private record Timed(FileLine line, LocalDateTime time) {}

  /** The time of the last line that has one, in the last part of the file; or {@code null}. */
  public @Nullable LocalDateTime last() throws IOException {
    return lastIn(file.last());
  }

  private @Nullable LocalDateTime lastIn(List<FileLine> lines) {
    LocalDateTime last = null;
    for (FileLine line : lines) {
      LocalDateTime time = LineTime.of(line.text(), about);
      last = time == null ? last : time;
    }
    return last;
  }

  /**
   * Where the first line begins that is of that time or later.
   *
   * @return the file's length when all are before it; -1 when no line tells a time
   * @throws java.util.concurrent.CancellationException when it was stopped
   */
  public long find(LocalDateTime wanted) throws IOException {
    if (last() == null && lastIn(file.after(0)) == null) {
      return -1;
    }
    long low = 0;
    long high = file.size();
    long found = high;
    while (low < high) {
      stop.throwIfStopped();
      // Near the front of a small rest there is nothing to halve: its lines are looked at in order.
      long middle = high - low <= PagedFile.PAGE ? low : low + (high - low) / 2;
      Timed timed = firstTimed(middle, high, middle == low ? wanted : null);
      if (timed == null || !timed.time().isBefore(wanted)) {
        found = timed == null ? found : timed.line().from();
        if (middle == low) {
          break;
        }
        high = middle;
      } else {
        if (middle == low) {
          break;
        }
        low = timed.line().end();
      }
    }
    return found;
  }

  /**
   * The first line with a time that begins at a place or behind it.
   *
   * @param least only one of this time or later; {@code null} for any
   */
  private @Nullable Timed firstTimed(long from, long before, @Nullable LocalDateTime least)
      throws IOException {
    for (long at = from; at < before && at - from < WITHOUT_TIME; ) {
      stop.throwIfStopped();
      List<FileLine> lines = file.after(at);
      if (lines.isEmpty()) {
        return null;
      }
      for (FileLine line : lines) {
        if (line.from() >= before && least == null) {
          return null;
        }
        LocalDateTime time = LineTime.of(line.text(), about);
        if (time != null && (least == null || !time.isBefore(least))) {
          return new Timed(line, time);
        }
      }
      at = lines.get(lines.size() - 1).end();
    }
    return null;
  }
}
